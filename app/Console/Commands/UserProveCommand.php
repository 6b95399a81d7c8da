<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\FtpUsers\FtpUsers;
use App\Models\Proof;

final class UserProveCommand extends CellariumCommand
{
    protected $signature =
        'cellarium:user-prove '.self::ACCOUNT.' '.self::LOGIN.' {--json : one JSON object on standard output}';

    protected $description = 'Sign in as an FTP user and prove what it reaches, step by step (exit 0 it holds, 1 it '
        .'does not)';

    public function handle(FtpUsers $users): int
    {
        $account = $this->accountNamed((string) $this->argument('account'));
        $user = $this->ftpUser($account, (string) $this->argument('login'));
        if ($user->hasEnded()) {
            return $this->refuse("$user->login is closed; there is nothing to sign in as.");
        }
        $before = (int) $user->proofs()->max('id');
        $holds = $users->settle($user);
        $steps = $user->proofs()->where('id', '>', $before)->orderBy('id')->get();
        if ($this->wantsJson()) {
            $this->json([
                'reach_ok' => $holds,
                'steps' => $steps
                    ->map(
                        static fn (Proof $step): array => [
                            'name' => $step->name,
                            'ok' => $step->ok,
                            'answer' => $step->answer,
                            'at' => $step->made_at->format('Y-m-d\TH:i:s.vP'),
                            'sentence' => $step->sentence,
                            'next' => $step->next,
                        ],
                    )
                    ->all(),
            ]);
        } else {
            foreach ($steps as $step) {
                $this->components->twoColumnDetail($step->sentence.($step->answer === null ? '' : " ($step->answer)"),
                    $step->ok ? 'holds' : 'does not hold',
                );
                $step->next === null ?: $this->line("      $step->next");
            }
            $steps->isNotEmpty() || $this->line((string) $user->trouble);
        }

        return $holds ? self::PROVEN : self::REFUSED;
    }
}
