<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Failure\Problem;
use App\Models\Account;
use App\Models\Person;
use App\Models\RecordKind;
use App\Record\Record;
use App\Work\ForPerson;
use App\Work\Task;
use Cellarium\Core\Transfer\Cancelled;
use Cellarium\Core\Work\Claim;
use Cellarium\Core\Work\Urgency;

/** Climbs the ladder of one account while a page watches. */
final readonly class ConnectAccount implements ForPerson, Task
{
    public function __construct(private AccountCheck $check)
    {
    }

    public static function claim(int $row): ?Claim
    {
        $account = Account::find($row);

        return $account === null ? null : new Claim(Urgency::Ordered, $account->host);
    }

    public function carryOut(int $row): ?int
    {
        $account = Account::with('client', 'sites')->find($row);
        if ($account === null) {
            return null;
        }
        try {
            $this->check->connect($account, person: Person::viewer());
        } catch (Cancelled) {
            Record::write(
                RecordKind::ConnectingCancelled,
                "Connecting to $account->host was cancelled",
                $account,
                person: Person::viewer(),
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

        return null;
    }
}
