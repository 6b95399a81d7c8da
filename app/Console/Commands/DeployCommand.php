<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Deployments\Plans;
use App\Deployments\Runner;
use App\Failure\Problem;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use App\Models\Site;
use App\Packages\Packages;
use Cellarium\Core\Deployment\RunStage;
use Cellarium\Core\Path\RemotePath;
use Symfony\Component\Console\Helper\ProgressBar;

final class DeployCommand extends CellariumCommand
{
    protected $signature = 'cellarium:deploy {site : the domain} {file : a zip, tar, tar.gz or tar.xz} '
        .'{--ftp-user= : the FTP user '
        .'to sign in as; it is closed at the end when it was made for its job} {--into= : a saved destination of the '
        .'site, or a directory inside its document root} {--reason= : why it goes there although '
        .'another site fits better} {--json : one JSON object on standard output}';

    protected $description = 'Back up a site, replace it by a package and prove it live (exit 0 proven, 1 refused, 2 '
        .'failed and put back)';

    private ?ProgressBar $bar = null;

    public function handle(Packages $packages, Plans $plans, Runner $runner): int
    {
        $site = $this->siteNamed((string) $this->argument('site'));
        $file = $this->readable((string) $this->argument('file'));
        $package = $packages->take($file, basename($file));
        $deployment = $plans->deploy(
            $site,
            $package,
            $this->signingInAs($site->account_id),
            place: $this->place($site),
            reason: is_string($this->option('reason')) ? $this->option('reason') : null,
        );
        $deployment->update(['state' => DeploymentState::Queued]);
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
        $this->bar?->finish();
        $deployment->refresh()->load('package', 'backup', 'site');
        $this->wantsJson() ? $this->json($this->report($deployment)) : $this->tell($deployment);

        return match ($deployment->state) {
            DeploymentState::Proven => self::PROVEN,
            DeploymentState::Refused => self::REFUSED,
            default => self::PUT_BACK,
        };
    }

    private function signingInAs(int $account): ?FtpUser
    {
        $login = $this->option('ftp-user');

        return is_string($login)
            ? FtpUser::with('account.sites')
                ->where(['account_id' => $account, 'login' => $login, 'state' => FtpUserState::Open])
                ->first() ?? throw new Problem("There is no open FTP user $login in this account.")
            : null;
    }

    private function place(Site $site): ?RemotePath
    {
        $given = $this->option('into');
        if (! is_string($given)) {
            return null;
        }
        $saved = $site->destinations()->where('name', $given)->first();

        return $saved?->path()
            ?? (RemotePath::tryFromString($given)
                ?? throw new Problem("$given is neither a saved destination of $site->domain nor a directory."));
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
                (int) $progress['files'] === 0 ? ' %stage:-13s%' : ' %stage:-13s% [%bar%] %current%/%max%',
            );
            $this->bar->setMessage($label, 'stage');
            $this->bar->start();
        }
        $this->bar->setProgress((int) $progress['files_done']);
    }

    private function tell(Deployment $deployment): void
    {
        $this->newLine(2);
        if ($deployment->state !== DeploymentState::Proven) {
            $this->components->error((string) $deployment->trouble);

            return;
        }
        foreach ($deployment->counts as $change => $count) {
            $this->components->twoColumnDetail(
                str_replace('_', ' ', $change),
                "{$count['files']} files, {$count['bytes']} bytes",
            );
        }
        $this->components->twoColumnDetail(
            'backup',
            "number $deployment->backup_id, {$deployment->backup?->files} files. "
                ."{$deployment->backup?->readings()}; the stored copy was read back",
        );
        foreach ($deployment->modes_not_set ?? [] as $sentence) {
            $this->components->warn($sentence);
        }
        $this->components->info("{$deployment->site->domain} is live and proven in {$deployment->seconds()} s");
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
            ]
            + ($deployment->trouble === null ? [] : ['error' => $deployment->trouble]);
    }
}
