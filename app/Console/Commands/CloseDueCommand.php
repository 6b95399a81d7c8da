<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\FtpUsers\FtpUsers;
use App\Models\Deployment;
use App\Models\FtpUser;
use Illuminate\Console\Command;

final class CloseDueCommand extends Command
{
    protected $signature = 'cellarium:close-due';

    protected $description = 'Close FTP users whose closing date has come';

    public function handle(FtpUsers $users): int
    {
        $busy = Deployment::whereIn('state', [Deployment::RUNNING, Deployment::WAITING, Deployment::QUEUED])->pluck('ftp_user_id')->filter();
        foreach (FtpUser::with('account.sites')->whereIn('state', [FtpUser::MADE, FtpUser::OPEN])->where('closes_at', '<=', now())->whereNotIn('id', $busy)->get() as $user) {
            $users->close($user, 'its closing date has come');
        }

        return self::SUCCESS;
    }
}
