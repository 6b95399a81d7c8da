<?php

declare(strict_types=1);

namespace App\Storage;

use App\Models\Deployment;
use App\Models\Site;
use Cellarium\Core\Deployment\FileJournal;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Storage\WholeFile;

/** What belongs to runs and is too large for the database: targets, plans, journals, and the last look at each site. */
final readonly class RunFiles
{
    private string $var;

    public function __construct()
    {
        $this->var = (string) config('cellarium.var');
    }

    public function journal(Deployment $deployment): FileJournal
    {
        return new FileJournal("$this->var/runs/$deployment->id");
    }

    public function keepDraft(Deployment $deployment, Manifest $target, Plan $plan): void
    {
        $journal = $this->journal($deployment);
        $journal->keep('target', $target->toJson());
        $journal->keep('draft', $plan->toJson());
    }

    public function target(Deployment $deployment): Manifest
    {
        return $this->tryTarget($deployment) ??
            throw new \RuntimeException(
                "The target of deployment $deployment->id cannot be read any more. Make a new plan.",
            );
    }

    /** Null where the plan was not made yet. */
    public function tryTarget(Deployment $deployment): ?Manifest
    {
        $json = $this->journal($deployment)->kept('target');

        return $json === null ? null : Manifest::fromJson($json);
    }

    /** The plan as carried out, or as shown before. */
    public function plan(Deployment $deployment): Plan
    {
        $journal = $this->journal($deployment);

        return Plan::fromJson(
            $journal->kept('plan') ??
                ($journal->kept('draft') ??
                    throw new \RuntimeException(
                        "The plan of deployment $deployment->id cannot be read any more. Make a new plan.",
                    )),
        );
    }

    public function keepAfter(Deployment $deployment, Manifest $after): void
    {
        $this->journal($deployment)->keep('after', $after->toJson());
    }

    public function after(Deployment $deployment): ?Manifest
    {
        $json = $this->journal($deployment)->kept('after');

        return $json === null ? null : Manifest::fromJson($json);
    }

    /**
     * @param  RemotePath  $root  where its paths begin
     * @return array{Manifest, int} the last look at it with its hashes, and when it was
     */
    public function known(Site $site, RemotePath $root): array
    {
        $file = $this->knownFile($site, $root);
        $json = @file_get_contents($file);

        return $json === false ? [Manifest::of([]), 0] : [Manifest::fromJson($json), (int) filemtime($file)];
    }

    /** @param  int  $at when the listing behind it was made, seconds since 1970 */
    public function keepKnown(
        Site $site,
        RemotePath $root,
        Manifest $manifest,
        int $at,
    ): void {
        WholeFile::write($this->knownFile($site, $root), $manifest->toJson(), $at);
    }

    /** One for each directory: what was seen in another says nothing. */
    private function knownFile(Site $site, RemotePath $root): string
    {
        $where = $root->equals($site->root()) ? '' : '-'.substr(hash('sha256', $root->toString()), 0, 16);

        return "$this->var/manifests/site-$site->id$where.json";
    }
}
