<?php

declare(strict_types=1);

namespace App\Files;

use App\Models\Site;
use App\Storage\RunFiles;
use App\Storage\RunLimits;
use Cellarium\Core\Backup\TrustedListing;
use Cellarium\Core\File\FileChange;
use Cellarium\Core\File\FileChangeKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Reference\Documents;
use Cellarium\Core\Reference\FollowedText;
use Cellarium\Core\Reference\Moves;
use Cellarium\Core\Reference\Resolver;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Transfer\Job\FetchFile;
use Cellarium\Core\Transfer\Surveyor;
use Cellarium\Core\Transfer\TransferPool;

/**
 * Pages of a site that would lead nowhere once files are moved or go, and what would mend them.
 *
 * What is kept of a page is read here, from the last backup or deployment; a page that is newer is read from the host.
 */
final readonly class PageReferences
{
    public function __construct(
        private FileWorkers $workers,
        private RunFiles $files,
        private ContentStore $store,
    ) {
    }

    /**
     * @param  list<FileChange>  $steps
     * @param  \Closure(): mixed  $beat  called often; may throw Cancelled
     * @return TornPages|null null where visitors get nothing of what is changed
     */
    public function look(Site $site, array $steps, \Closure $beat): ?TornPages
    {
        $moves = self::moves($site, $steps);

        return $moves === [] ? null : $this->workers->with(
            $site->account,
            $beat,
            fn (TransferPool $pool, string $scratch): TornPages => $this->torn(
                $site,
                new Moves($moves),
                $pool,
                $scratch,
            ),
        );
    }

    /** Whether it moves, or lets go, what may have an address. */
    public static function touches(Site $site, FileChange $step): bool
    {
        return self::moves($site, [$step]) !== [];
    }

    /**
     * @param  list<FileChange>  $steps
     * @return array<string, string|null> see Moves
     */
    private static function moves(Site $site, array $steps): array
    {
        $moves = [];
        foreach ($steps as $step) {
            $from = $site->root()->toward($step->path)?->toString();
            $goes = [FileChangeKind::Rename, FileChangeKind::SetAside, FileChangeKind::RemoveDirectory];
            if ($from !== null && in_array($step->kind, $goes, true)) {
                $moves[$from] = $step->to === null ? null : $site->root()->toward($step->to)?->toString();
            }
        }

        return $moves;
    }

    private function torn(Site $site, Moves $moves, TransferPool $pool, string $scratch): TornPages
    {
        $root = $site->root();
        $earlier = $this->files->known($site, $root);
        // A server that lists less than it holds would have no page lead anywhere.
        $listed = TrustedListing::fromSurvey(
            $pool,
            $root,
            (new Surveyor($pool, RunLimits::survey()))->survey($root),
            $earlier,
            RunLimits::collapseShare(),
        )->manifest;
        $known = $earlier->applied($listed);
        $own = [$site->domain, "www.$site->domain"];
        $torn = new TornPages;
        $before = new Resolver($listed, $own);
        $pages = $this->pages($known, $root, $pool, $scratch, $torn);
        foreach ($pages as $page => $text) {
            $followed = FollowedText::fromText($page, $text, $moves, $before, $own);
            $torn->pages++;
            array_push($torn->torn, ...$followed->torn);
            if ($followed->text !== null) {
                $torn->mends[] = $this->mend(
                    $site,
                    $listed->get($page) ?? throw new \LogicException("$page was listed."),
                    (string) $moves->of($page),
                    $text,
                    $followed->text,
                );
            }
        }

        return $torn;
    }

    /**
     * Every document with its contents; one that is not kept here is fetched first.
     *
     * @return \Generator<string, string>
     */
    private function pages(
        Manifest $known,
        RemotePath $root,
        TransferPool $pool,
        string $scratch,
        TornPages $torn,
    ): \Generator {
        $newer = [];
        foreach ($known->files() as $entry) {
            $path = $entry->path->toString();
            if (! Documents::isOne($path, $entry->size)) {
                continue;
            }
            if ($entry->sha256 !== null && $this->store->has($entry->sha256)) {
                yield $path => $this->store->text($entry->sha256);
            } else {
                $newer[$path] = "$scratch/".count($newer);
            }
        }
        $torn->fetched = count($newer);
        $jobs = [];
        foreach ($newer as $path => $local) {
            $jobs[] = new FetchFile(
                $root->join(RelativePath::fromString((string) $path)),
                $local,
                $known->get((string) $path)->size ?? 0,
                (string) $path,
            );
        }
        foreach ($pool->runAll($jobs) as $failed) {
            $torn->unread[] = [$failed->job->subject, $failed->failure->reason->sentence()];
            unset($newer[$failed->job->subject]);
        }
        foreach ($newer as $path => $local) {
            yield (string) $path => (string) file_get_contents($local);
        }
    }

    private function mend(Site $site, ManifestEntry $page, string $to, string $before, string $after): MendedPage
    {
        $was = $this->store->put([$before]);
        $place = $site->root()->join(RelativePath::fromString($to));
        $seen = $page->at(RelativePath::fromString(ltrim($place->toString(), '/')))->withSha256($was->sha256);

        return new MendedPage(
            $page->path->toString(),
            $was->sha256,
            FileChange::save($place, $seen, $this->store->put([$after]), $page->mode),
        );
    }
}
