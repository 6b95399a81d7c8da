<?php

declare(strict_types=1);

namespace App\FtpUsers;

use App\Failure\Problem;
use App\Models\FtpUser;
use App\Work\Task;
use App\Work\Tasks;
use Cellarium\Core\Work\Claim;
use Cellarium\Core\Work\Urgency;

/** Proves one FTP user while a page watches. */
final readonly class ProveFtpUser implements Task
{
    public function __construct(private FtpUsers $users)
    {
    }

    /** The page of the user watches until the worker has ended. */
    public static function start(FtpUser $user): void
    {
        $user->update(['proving_at' => now()]);
        Tasks::order(self::class, $user->id);
    }

    public static function claim(int $row): ?Claim
    {
        $user = FtpUser::with('account')->find($row);

        return $user === null ? null : new Claim(Urgency::Ordered, $user->account->host);
    }

    public function carryOut(int $row): ?int
    {
        $user = FtpUser::with('account.client', 'account.sites')->find($row);
        if ($user === null) {
            return null;
        }
        try {
            $this->users->settle($user);
        } catch (\Throwable $failure) {
            if (! Problem::isExpected($failure)) {
                throw $failure;
            }
            $user->update(['trouble' => Problem::words($failure)]);
        } finally {
            FtpUser::where('id', $row)->update(['proving_at' => null]);
        }

        return null;
    }
}
