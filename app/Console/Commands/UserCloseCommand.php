<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\FtpUsers\FtpUsers;
use App\Models\PendingAction;
use App\Models\ProofKind;

final class UserCloseCommand extends CellariumCommand
{
    protected $signature =
        'cellarium:user-close '.self::ACCOUNT.' '.self::LOGIN.' {--json : one JSON object on standard output}';

    protected $description = 'Close an FTP user and prove it by its refused sign-in (exit 0 closed and proven, 1 not, '
        .'3 to be done at the provider)';

    public function handle(FtpUsers $users): int
    {
        $account = $this->accountNamed((string) $this->argument('account'));
        $user = $this->ftpUser($account, (string) $this->argument('login'));
        // Where a person had it to do, this is how to say that it is done.
        $closed = $user->action() === PendingAction::Close && $users->byHand($user)
            ? $users->settle($user)
            : $users->close($user, 'from the console');
        $sheet = $users->sheet($user);
        if ($this->wantsJson()) {
            $this->json(
                [
                    'ok' => $closed,
                    'login' => $user->login,
                    'state' => $user->state,
                    'proof' => $user->proofs()->where('kind', ProofKind::Refusal)->latest('id')->value('sentence'),
                    'trouble' => $user->trouble,
                ] + ($sheet === null ? [] : ['to_do' => ['title' => $sheet->title, 'steps' => $sheet->steps]]),
            );
        } elseif ($closed) {
            $this->components->info("$user->login is closed; its sign-in is refused.");
        } elseif ($sheet !== null) {
            $this->components->info($sheet->title);
            $this->components->bulletList($sheet->steps);
            $user->trouble === null ?: $this->line($user->trouble);
        } else {
            $this->components->error("$user->login could not be closed: $user->trouble");
        }

        return match (true) {
            $closed => self::PROVEN,
            $sheet !== null => self::WAITS,
            default => self::REFUSED,
        };
    }
}
