<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Failure\Problem;
use App\Models\Account;
use App\Models\Person;
use App\Models\RecordKind;
use App\Queue\ForHost;
use App\Record\Record;
use Cellarium\Core\Transfer\Cancelled;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Climbs the ladder of one account in a queue worker while a page watches; holds its number and nothing else. */
final class ConnectAccount implements ForHost, ShouldQueue
{
    use Queueable;

    public int $timeout = 0;

    public function __construct(
        public readonly int $account,
        public readonly ?int $person = null,
    ) {
    }

    public function host(): ?string
    {
        return Account::find($this->account)?->host;
    }

    public function handle(AccountCheck $check): void
    {
        $account = Account::with('client', 'sites')->find($this->account);
        if ($account === null) {
            return;
        }
        try {
            $check->connect($account, person: $this->person === null ? null : Person::find($this->person));
        } catch (Cancelled) {
            Record::write(
                RecordKind::ConnectingCancelled,
                "Connecting to $account->host was cancelled",
                $account,
                person: $this->person === null ? null : Person::find($this->person),
            );
        } catch (\Throwable $failure) {
            if (! Problem::isExpected($failure)) {
                throw $failure;
            }
            // The ladder held and looking around did not; the page shows this beside the rungs.
            $account->update([
                'ladder' => [
                    ...$account->ladder ?? [],
                    [
                        'name' => 'looking around',
                        'ok' => false,
                        'evidence' => Problem::words($failure),
                        'cause' => null,
                        'next' => null,
                        'remedy' => null,
                        'identity' => null,
                        'reason' => null,
                    ],
                ],
                'climbing_at' => null,
                'trouble' => 'looking_around',
            ]);
        }
    }
}
