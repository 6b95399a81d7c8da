<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Failure\Problem;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\ProofBy;
use App\Plans\PlanAnswers;
use App\Plans\PlanMaker;
use App\Plans\Ways;
use App\Runs\Runner;
use App\Runs\VisitorsView;
use App\Storage\RunFiles;
use App\Text\Amount;
use Cellarium\Core\Deployment\RunStage;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Package\Finding\Severity;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\Choice;
use Cellarium\Core\Plan\PlanItem;
use Cellarium\Core\Plan\Way;
use Cellarium\Core\Words\Count;
use Symfony\Component\Console\Helper\ProgressBar;

/** A plan that is made, carried out and proven from the console. */
abstract class RunCommand extends CellariumCommand
{
    private ?ProgressBar $bar = null;

    /** So often a plan is made anew because the server changed meanwhile. */
    private const MOST_PLANS = 3;

    /** Asked once the plan is made and holds no question. */
    protected function mayStart(Deployment $deployment): bool
    {
        return true;
    }

    /**
     * @param  Way|null  $way  null for the one that is proposed
     *
     * @throws Problem
     */
    final protected function runToItsEnd(Deployment $deployment, ?Way $way = null): int
    {
        for ($plan = 1; $plan <= self::MOST_PLANS && $deployment->state === DeploymentState::Drafting; $plan++) {
            app(PlanMaker::class)->make($deployment);
            if ($way !== null && $deployment->way !== $way) {
                $barred = Ways::forDeployment($deployment)[$way->value]->barred;
                throw new Problem("{$way->label()} cannot be done here: $barred.");
            }
            $this->wantsJson() || $this->tellInspection($deployment);
            $folder = app(RunFiles::class)->folder($deployment);
            if ($folder !== null) {
                return $this->refuse(
                    "Is the folder $folder meant, or what lies in it? It holds a start page and is not there yet. "
                        .'Say --contents, or --folder.',
                );
            }
            if (($deployment->counts[Change::Asked->value]['files'] ?? 0) > 0) {
                return $this->listQuestions($deployment, app(PlanAnswers::class));
            }
            if (! $this->mayStart($deployment)) {
                return self::REFUSED;
            }
            $deployment->update(['state' => DeploymentState::Queued]);
            $this->carryOut(app(Runner::class), $deployment);
            $deployment->refresh();
        }
        $this->bar?->finish();
        $deployment->refresh()->load('package', 'backup', 'site');
        $this->wantsJson() ? $this->json($this->report($deployment)) : $this->tell($deployment);

        return match ($deployment->state) {
            DeploymentState::Proven => self::PROVEN,
            DeploymentState::Refused => self::REFUSED,
            default => self::PUT_BACK,
        };
    }

    private function carryOut(Runner $runner, Deployment $deployment): void
    {
        while (! $runner->carryOut($deployment, $this->wantsJson() ? null : $this->show(...))) {
            if (! $this->wantsJson() && ! isset($told)) {
                $this->components->info(
                    'Waiting: another run on this account is going on'
                        .($deployment->waitsFor === null ? '' : ", number {$deployment->waitsFor->id}"),
                );
                $told = true;
            }
            usleep(500_000);
        }
    }

    /** Refuses with the list of what is to be answered; the plan waits for it. */
    private function listQuestions(Deployment $deployment, PlanAnswers $answering): int
    {
        $items = $answering->open($deployment);
        $count = count($items);
        if ($this->wantsJson()) {
            $this->json([
                'ok' => false,
                'state' => $deployment->state,
                'site' => $deployment->site->domain,
                'deployment' => $deployment->id,
                'questions' => array_map(static fn (PlanItem $item): array => [
                    'path' => $item->path->toString(),
                    'conflict' => $item->conflict?->value,
                    'choices' => array_map(
                        static fn (Choice $choice): string => $choice->value,
                        $item->conflict?->choices($item->target !== null) ?? [],
                    ),
                ], $items),
            ]);

            return self::REFUSED;
        }
        foreach ($items as $item) {
            $this->components->twoColumnDetail($item->path->toString(), (string) $item->conflict?->label());
        }
        $this->components->error(
            Count::choose($count, 'One file is a question', "$count files are questions").', and nothing was touched: '
                .'somebody changed them on the server since the last deployment, or visitors would get them instead of '
                .'the start page that is sent. Say what counts with --on-conflict, or answer deployment '
                ."$deployment->id in the browser.",
        );

        return self::REFUSED;
    }

    /** @param  array<string, mixed>  $progress */
    private function show(array $progress): void
    {
        $label = str_replace('_', ' ', RunStage::from((string) $progress['stage'])->value);
        if ($this->bar === null || $this->bar->getMessage('stage') !== $label) {
            $this->bar?->finish();
            $this->bar === null ?: $this->newLine();
            $this->bar = $this->output->createProgressBar((int) $progress['files']);
            $this->bar->setFormat(
                (int) $progress['files'] === 0
                    ? ' %stage:-13s%'
                    : ' %stage:-13s% [%bar%] %current%/%max% files, %bytes%, %elapsed:6s%%left%',
            );
            $this->bar->setMessage($label, 'stage');
            $this->bar->setMessage('', 'bytes');
            $this->bar->setMessage('', 'left');
            $this->bar->start();
        }
        $this->bar->setMessage(self::bytes($progress), 'bytes');
        $this->bar->setMessage(
            $progress['left'] === null ? '' : ', about '.Amount::seconds($progress['left']).' left',
            'left',
        );
        $this->bar->setProgress((int) $progress['files_done']);
    }

    /**
     * @param  array<string, mixed>  $progress
     * @return string "1.2 MB of 3.4 MB, 820 KB/s"
     */
    private static function bytes(array $progress): string
    {
        return Amount::bytes((int) $progress['bytes_done']).' of '.Amount::bytes((int) $progress['bytes'])
            .($progress['now'] === null ? '' : ', '.Amount::bytes((int) $progress['now']).'/s');
    }

    private function tell(Deployment $deployment): void
    {
        $this->newLine(2);
        if ($deployment->state !== DeploymentState::Proven) {
            $this->components->error((string) $deployment->trouble);

            return;
        }
        foreach ($deployment->counts as $change => $count) {
            $count['files'] === 0 || $this->components->twoColumnDetail(
                Change::from($change)->label(),
                Amount::files($count['files']).', '.Amount::bytes($count['bytes']),
            );
        }
        $this->components->twoColumnDetail(
            'backup',
            "number $deployment->backup_id, {$deployment->backup?->files} files. "
                ."{$deployment->backup?->readings()}; the stored copy was read back",
        );
        $this->components->twoColumnDetail('outage', $deployment->outage()?->sentence() ?? 'not measured');
        foreach ($deployment->modes_not_set ?? [] as $sentence) {
            $this->components->warn($sentence);
        }
        $this->tellVisitors($deployment);
        $but = $deployment->foundLive()?->but();
        $this->components->info($deployment->site->domain.match (true) {
            $deployment->provenBy() === ProofBy::ReadingBack => ' is there and read back, visitors were not asked, in ',
            $but === null => ' is live and proven in ',
            default => ' is live in ',
        }."{$deployment->seconds()} s".($but === null ? '' : "; $but"));
    }

    /** @return array{left_out?: list<array<string, mixed>>, findings?: list<array<string, mixed>>} of an upload */
    private static function inspection(Deployment $deployment): array
    {
        $all = app(RunFiles::class)->inspection($deployment);
        $told = static fn (PackageFinding $one): array => array_diff_key($one->toArray(), ['offset' => 0]);

        return $all === null ? [] : [
            'left_out' => array_map($told, $all[0]),
            'findings' => array_map($told, $all[1]),
        ];
    }

    private function tellVisitors(Deployment $deployment): void
    {
        $visitors = VisitorsView::forDeployment($deployment);
        $told = $visitors === null ? [] : [
            ...$visitors->public(),
            ...$visitors->unanswered(),
            ...array_map(
                static fn (string $at): string => "Visitors get a list of the files in $at.",
                array_values($visitors->listed()),
            ),
        ];
        foreach ($told as $sentence) {
            $this->components->warn($sentence);
        }
        $since = $visitors?->since();
        $since === null || $this->line("  $since");
    }

    private function tellInspection(Deployment $deployment): void
    {
        [$leftOut, $findings] = app(RunFiles::class)->inspection($deployment) ?? [[], []];
        foreach ($leftOut as $finding) {
            $this->components->warn("Left out: $finding->path $finding->message");
        }
        foreach ($findings as $finding) {
            $finding->severity === Severity::Note || $this->components->warn(
                trim("$finding->path ".($finding->line === null ? '' : "line $finding->line"))." $finding->message",
            );
        }
    }

    /** @return array<string, mixed> */
    private function report(Deployment $deployment): array
    {
        $start = $deployment->proofs[0] ?? null;
        $backup = $deployment->backup;

        return [
            'ok' => $deployment->state === DeploymentState::Proven,
            'state' => $deployment->state,
            'site' => $deployment->site->domain,
            'package' => $deployment->package?->title(),
            'deployment' => $deployment->id,
            'modes_not_set' => $deployment->modes_not_set ?? [],
            'says' => $deployment->label(),
            'visitors' => $deployment->foundLive()?->toArray(),
            ...self::inspection($deployment),
        ]
            + $deployment->counts + [
                'backup' => $backup === null
                    ? null
                    : [
                        'id' => $backup->id,
                        'files' => $backup->files,
                        'bytes' => (int) $backup->bytes,
                        'verified' => $backup->verified_at !== null,
                        'fetched' => $backup->fetched_files,
                        'taken_over' => $backup->taken_over_files,
                        'taken_over_since' => $backup->taken_over_since?->toIso8601String(),
                    ],
                'proof_by' => $deployment->provenBy(),
                'proof' => $start === null
                    ? null
                    : [
                        'url' => $start['url'],
                        'status' => $start['status'],
                        'matches' => $start['matches'],
                        'fetched' => count($deployment->proofs),
                        'addresses' => $deployment->addresses,
                        'read_back' => $deployment->read_back,
                    ],
                'unproven' => $deployment->unproven ?? [],
                'seconds' => $deployment->seconds(),
                'outage' => $deployment->outage()?->toArray(),
                'way' => $deployment->way->value,
            ]
            + ($deployment->trouble === null ? [] : ['error' => $deployment->trouble]);
    }
}
