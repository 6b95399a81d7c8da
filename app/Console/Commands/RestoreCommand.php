<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Failure\Problem;
use App\Models\Backup;
use App\Models\DeploymentState;
use App\Plans\PlanMaker;
use App\Plans\Plans;
use App\Runs\Runner;

final class RestoreCommand extends CellariumCommand
{
    protected $signature = 'cellarium:restore {backup : the number of a backup} '
        .'{path?* : files and folders of it; all of it when none is named} '
        .'{--to= : another site of the client} {--json}';

    protected $description = 'Make a site hold again what a backup holds; what is there now is backed up first';

    /** So often a plan is made anew because the server changed meanwhile. */
    private const MOST_PLANS = 3;

    public function handle(Plans $plans, PlanMaker $maker, Runner $runner): int
    {
        $backup = Backup::with('site.account.client', 'site.account.sites')->find((int) $this->argument('backup'))
            ?? throw new Problem('There is no backup of this number. The page Backups shows which there are.');
        $to = $this->option('to');
        $deployment = $plans->orderRestoreBackup(
            $backup,
            null,
            array_values(array_map(
                static fn (string $path): string => trim($path, '/'),
                (array) $this->argument('path'),
            )),
            $to === null ? null : $this->siteNamed((string) $to),
        );
        for ($plan = 1; $plan <= self::MOST_PLANS && $deployment->state === DeploymentState::Drafting; $plan++) {
            $maker->make($deployment)->update(['state' => DeploymentState::Queued]);
            while (! $runner->carryOut($deployment)) {
                usleep(500_000);
            }
            $deployment->refresh();
        }
        if ($deployment->state !== DeploymentState::Proven) {
            $this->refuse((string) $deployment->trouble);

            return $deployment->state === DeploymentState::Refused ? self::REFUSED : self::PUT_BACK;
        }
        $this->wantsJson()
            ? $this->json(
                [
                    'ok' => true,
                    'site' => $deployment->site->domain,
                    'backup' => $backup->id,
                    'deployment' => $deployment->id,
                ]
                    + $deployment->counts + ['seconds' => $deployment->seconds()],
            )
            : $this->components->info(
                "{$deployment->site->domain} holds "
                    .($deployment->paths === null ? '' : 'what was chosen of ')
                    ."backup $backup->id again, live and proven.",
            );

        return self::PROVEN;
    }
}
