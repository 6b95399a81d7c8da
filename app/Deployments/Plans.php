<?php

declare(strict_types=1);

namespace App\Deployments;

use App\Hosting\Connections;
use App\Models\Backup;
use App\Models\Deployment;
use App\Models\FtpUser;
use App\Models\Package;
use App\Models\Person;
use App\Models\Site;
use App\Problem;
use App\Record\Record;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Backup\Survey;
use Cellarium\Core\Backup\Surveyor;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Manifest;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Plan\PlanImpossible;
use Cellarium\Core\Plan\Planner;
use Cellarium\Core\Plan\Policy;
use Cellarium\Core\Plan\Undo;
use Cellarium\Core\Proof\PlaceholderPage;
use Cellarium\Core\Transfer\RunRefused;
use Cellarium\Core\Transfer\SequentialPool;
use Cellarium\Core\Transfer\TransferFailed;

/** Makes plans: looks at the server and compares. Nothing is changed there. */
final readonly class Plans
{
    public function __construct(
        private Connections $connections,
        private RunFiles $files,
        private BackupShelf $shelf,
    ) {
    }

    /**
     * @param  RemotePath|null  $place  a directory inside the document root; null for the document root itself
     *
     * @throws Problem|RemoteFailure|TransferFailed|PlanImpossible
     */
    public function deploy(Site $site, Package $package, ?FtpUser $as = null, ?Person $person = null, ?RemotePath $place = null): Deployment
    {
        $place = $place?->equals($site->root()) === true ? null : $place;
        [$target, $policy, $survey, $plan] = $this->compare($site, $package, $place);
        $as?->read_only && throw new Problem("$as->login may only read. Choose another user, or none.");
        $reaches = $as === null || $site->root()->seenFrom($as->path()) !== null;
        if (! $reaches) {
            throw new Problem("$as->login lands in $as->directory and cannot touch $site->document_root. Choose another user, or none.");
        }

        return $this->draft($site, Deployment::DEPLOY, $target, $policy, $survey, $plan, [
            'package_id' => $package->id, 'ftp_user_id' => $as?->id, 'directory' => $place?->toString(),
        ], $person);
    }

    /**
     * A plan without keeping it.
     *
     * @return array{Manifest, Policy, Survey, Plan}
     */
    public function compare(Site $site, Package $package, ?RemotePath $place = null): array
    {
        $below = $place === null ? null : ($site->root()->toward($place) ?? throw new Problem("$place does not lie in the document root of $site->domain, $site->document_root."));
        $target = $package->contents();
        if ($target->startPage($site->start_pages) === null) {
            $stop = collect($package->notes())->first(static fn ($finding): bool => $finding->stops);
            throw new Problem("{$package->title()} cannot go to $site->domain: ".($stop->sentence ?? 'none of the start pages of this site ('.implode(', ', $site->start_pages).') stands at its top.'));
        }
        $remote = $this->connections->remote($site->account);
        $survey = $this->survey($site, $remote);
        // What is deployed further down leaves everything beside it as it is; the backup holds the whole site either way.
        $policy = new Policy($site->kept, $below === null ? $this->placeholders($site, $survey->manifest, $target, $remote) : [], $this->ours($site, $place));
        $target = $below === null ? $target : $target->below($below);

        return [$target, $policy, $survey, Planner::plan($target, $survey->manifest, $policy)];
    }

    /** Everything in a document root as a backup holds it. */
    public function bringBack(Backup $backup, ?Person $person = null): Deployment
    {
        $site = $backup->site;
        if ($backup->state !== Backup::VERIFIED || $backup->name === null) {
            throw new Problem("Backup $backup->id was not verified and cannot be brought back.");
        }
        $target = $this->shelf->manifest($backup->name);
        $survey = $this->survey($site, $this->connections->remote($site->account));
        $policy = new Policy(exact: true);

        return $this->draft($site, Deployment::BRING_BACK, $target, $policy, $survey, Planner::plan($target, $survey->manifest, $policy), [
            'from_backup_id' => $backup->id,
        ], $person);
    }

    /**
     * One step back to the state before a deployment.
     *
     * @throws RunRefused when a touched file was changed since
     */
    public function undo(Deployment $done, ?Person $person = null): Deployment
    {
        $site = $done->site;
        $after = $this->files->after($done);
        if ($done->state !== Deployment::PROVEN || $done->backup?->name === null || $after === null) {
            throw new Problem('Only a deployment that was carried out and proven can be taken back.');
        }
        $survey = $this->survey($site, $this->connections->remote($site->account));
        $undo = Undo::of($this->files->plan($done), $this->shelf->manifest($done->backup->name), $after, $survey->manifest);
        if ($undo->changedSince !== []) {
            throw new Problem(implode(', ', array_slice($undo->changedSince, 0, 5)).(count($undo->changedSince) > 5 ? ' and others' : '').' changed on the server since this deployment. Going back would overwrite that. Look at it first, or bring back the backup as a whole.');
        }
        $policy = new Policy(exact: true);

        return $this->draft($site, Deployment::UNDO, $undo->target, $policy, $survey, Planner::plan($undo->target, $survey->manifest, $policy), [
            'undoes_id' => $done->id,
        ], $person);
    }

    private function survey(Site $site, RemoteDirectory $remote): Survey
    {
        $survey = (new Surveyor(new SequentialPool($remote)))->survey($site->root());
        [$known, $at] = $this->files->known($site);

        return new Survey($survey->manifest->withKnownHashes($known, $at - 60), $survey->temporary);
    }

    /** @param  array<string, int|string|null>  $links */
    private function draft(Site $site, string $kind, Manifest $target, Policy $policy, Survey $survey, Plan $plan, array $links, ?Person $person): Deployment
    {
        $deployment = Deployment::create([
            'site_id' => $site->id, 'kind' => $kind, 'person_id' => $person?->id, 'state' => Deployment::PLANNED,
            'seen' => $survey->manifest->digest(), 'policy' => $policy->toArray(), 'counts' => $plan->counts(), 'planned_at' => now(),
        ] + $links);
        $deployment->refresh()->setRelation('site', $site);
        $this->files->keepDraft($deployment, $target, $plan);
        Record::write('planned', "Plan made for $site->domain: {$deployment->title()}", $site, ['deployment' => $deployment->id]);

        return $deployment;
    }

    /** @return list<string> */
    private function placeholders(Site $site, Manifest $live, Manifest $target, RemoteDirectory $remote): array
    {
        $found = [];
        $names = array_unique([...$site->start_pages, 'index.html', 'index.htm', 'default.htm', 'default.html']);
        foreach ($names as $name) {
            $entry = $live->get($name);
            if ($entry === null || ! $entry->isFile() || $entry->size > 32768 || $target->get($name) !== null) {
                continue;
            }
            $sink = fopen('php://temp', 'w+b');
            assert($sink !== false);
            $remote->read($site->root()->child($name), $sink);
            rewind($sink);
            if ((new PlaceholderPage)->recognises((string) stream_get_contents($sink), $entry->size)) {
                $found[] = $name;
            }
        }

        return $found;
    }

    /** @return list<string> paths the last deployment to this place put there, as long as nothing was brought or taken back since */
    private function ours(Site $site, ?RemotePath $place): array
    {
        $proven = $site->deployments()->where('state', Deployment::PROVEN)->latest('ended_at')->latest('id');
        $last = (clone $proven)->where('kind', Deployment::DEPLOY)->where('directory', $place?->toString())->first();
        $back = (clone $proven)->where('kind', '!=', Deployment::DEPLOY)->first();
        if ($last === null || ($back !== null && $back->id > $last->id)) {
            return [];
        }

        return array_map(static fn ($entry): string => $entry->path->toString(), $this->files->target($last)->files());
    }
}
