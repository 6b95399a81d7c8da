<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Accounts\AccountCheck;
use Cellarium\Core\Diagnosis\Rung;

final class ConnectCommand extends CellariumCommand
{
    protected $signature = 'cellarium:connect '.self::ACCOUNT.' {--json : one JSON object on standard output}';

    protected $description = 'Climb the ladder of an account from its name to its document roots (exit 0 every rung '
        .'held, 1 one broke)';

    public function handle(AccountCheck $check): int
    {
        $ascent = $check->connect($this->accountNamed((string) $this->argument('account')));
        if ($this->wantsJson()) {
            $this->json([
                'ok' => $ascent->holds(),
                'rungs' => array_map(
                    static fn (Rung $rung): array => array_intersect_key(
                        $rung->toArray(),
                        array_flip(['name', 'ok', 'evidence', 'cause', 'next']),
                    ),
                    $ascent->rungs,
                ),
                'latency_ms' => $ascent->latencyMs,
                'features' => $ascent->features,
            ]);
        } else {
            foreach ($ascent->rungs as $rung) {
                $this->components->twoColumnDetail("$rung->name: $rung->evidence", $rung->ok ? 'holds' : 'broke');
                $rung->cause === null ?: $this->line("      $rung->cause".($rung->ok ? '' : '.'));
                $rung->next === null ?: $this->line("      $rung->next");
            }
        }

        return $ascent->holds() ? self::PROVEN : self::REFUSED;
    }
}
