<?php

declare(strict_types=1);

namespace App\FtpUsers;

use App\Failure\Problem;
use App\Models\FtpUser;
use App\Queue\ForHost;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Proves one FTP user in a queue worker while a page watches; holds its number and nothing else. */
final class ProveFtpUser implements ForHost, ShouldQueue
{
    use Queueable;

    public int $timeout = 0;

    public function __construct(public readonly int $user)
    {
    }

    /** The page of the user watches until the worker has ended. */
    public static function start(FtpUser $user): void
    {
        $user->update(['proving_at' => now()]);
        self::dispatch($user->id);
    }

    public function host(): ?string
    {
        return FtpUser::with('account')->find($this->user)?->account->host;
    }

    public function handle(FtpUsers $users): void
    {
        $user = FtpUser::with('account.client', 'account.sites')->find($this->user);
        if ($user === null) {
            return;
        }
        try {
            $users->settle($user);
        } catch (\Throwable $failure) {
            if (! Problem::isExpected($failure)) {
                throw $failure;
            }
            $user->update(['trouble' => Problem::words($failure)]);
        } finally {
            FtpUser::where('id', $this->user)->update(['proving_at' => null]);
        }
    }
}
