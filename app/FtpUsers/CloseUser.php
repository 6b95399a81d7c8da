<?php

declare(strict_types=1);

namespace App\FtpUsers;

use App\Errands\ErrandResult;
use App\Errands\ErrandTask;
use App\Failure\Problem;
use App\Models\Errand;
use App\Models\PendingAction;
use Cellarium\Core\Work\Urgency;

/** Has a worker of its own: it waits for no host that keeps the others. */
final class CloseUser extends ErrandTask
{
    public function __construct(private readonly FtpUsers $users)
    {
    }

    public static function title(): string
    {
        return 'Closing the FTP user';
    }

    public static function onlyLooks(): bool
    {
        return false;
    }

    public static function urgency(): Urgency
    {
        return Urgency::Closing;
    }

    protected function do(Errand $errand): ErrandResult
    {
        $user = $errand->ftpUser ?? throw self::removed();
        if ($this->users->close($user, 'by hand')) {
            return new ErrandResult("$user->login is closed; its sign-in is refused.");
        }

        return $user->action() === PendingAction::Close && $this->users->byHand($user)
            ? new ErrandResult('Close it at the provider; what to do stands here.', "/ftp-users/$user->id")
            : throw new Problem("$user->login could not be closed: $user->trouble");
    }
}
