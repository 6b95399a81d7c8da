<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\FtpUsers\FtpUserView;
use App\Models\FtpUser;
use Cellarium\Core\People\Permission;

final class UsersCommand extends CellariumCommand
{
    protected const PERMISSION = Permission::LookAtAgency;

    protected $signature = 'cellarium:users '
        .self::ACCOUNT
        .' {--all : with those that are closed or removed} {--json : one JSON list on standard output}';

    protected $description = 'List the FTP users of an account';

    public function handle(): int
    {
        $account = $this->accountNamed((string) $this->argument('account'));
        $users = $account
            ->ftpUsers()
            ->with('person')
            ->when(! $this->option('all'), static fn ($query) => $query->alive())
            ->oldest('created_at')
            ->oldest('id')
            ->get();
        if ($this->wantsJson()) {
            $this->json(
                $users
                    ->map(
                        static fn (FtpUser $user): array => [
                            'login' => $user->login,
                            'state' => $user->state,
                            'pending' => $user->action(),
                            'directory' => $user->directory,
                            'space' => $user->space_limit,
                            'read_only' => $user->read_only,
                            'purpose' => $user->purpose,
                            'owner' => $user->person?->name,
                            'ends' => $user->ends,
                            'closes' => $user->endsAs(),
                            'reason' => $user->ends_reason === '' ? null : $user->ends_reason,
                            'proven' => $user->isProven() ? $user->reach_proven_at?->toIso8601String() : null,
                            'used' => $user->used_at?->toIso8601String(),
                            'idle_days' => $user->idleDays(),
                            'trouble' => $user->trouble,
                        ],
                    )
                    ->all(),
            );

            return self::PROVEN;
        }
        foreach ($users as $user) {
            $this->components->twoColumnDetail(
                "$user->login in $user->directory, closes {$user->endsWords()}, idle {$user->idleDays()} days",
                FtpUserView::stands($user)[0],
            );
        }
        $users->isNotEmpty() || $this->line('Nobody but the account itself can sign in.');

        return self::PROVEN;
    }
}
