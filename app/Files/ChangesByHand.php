<?php

declare(strict_types=1);

namespace App\Files;

use App\Failure\Problem;
use App\Hosting\Connections;
use App\Models\ChangeByHand;
use App\Models\ChangeState;
use App\Models\FileAction;
use App\Models\Person;
use App\Models\SetAside;
use App\Storage\RunLimits;
use App\Text\Amount;
use Cellarium\Core\File\FileChange;
use Cellarium\Core\File\FileSteps;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\StoredContent;
use Cellarium\Core\Transfer\SequentialPool;
use Cellarium\Core\Transfer\Surveyor;
use Cellarium\Core\Words\Count;

/** Orders changes by hand: from what a person chose and saw to steps, which asks no server but for what lies deeper. */
final readonly class ChangesByHand
{
    /** More at once is a deployment's work. */
    public const MOST_STEPS = 5000;

    private const SECONDS_BETWEEN_SIGNS = 10.0;

    private const AS_TEXT = JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE | JSON_UNESCAPED_UNICODE;

    public function __construct(
        private Connections $connections,
        private PageReferences $references,
        private KeptVersions $kept,
    ) {
    }

    /**
     * @param  list<ManifestEntry>  $chosen  as they were seen, paths from the login's root
     * @param  ChangeAsked  $asked  what is to be done with them
     *
     * @throws Problem
     */
    public function order(FilePlace $place, array $chosen, ChangeAsked $asked, ?Person $person = null): ChangeByHand
    {
        $chosen === [] && $asked->action !== FileAction::NewFolder
            && throw new Problem('Nothing was chosen. Tick one or more files first.');
        self::leavesRoots($place, $chosen, $asked->action);
        $steps = $asked->looksInto($chosen) ? null : $asked->steps($place->at, $chosen, []);
        $steps === null || NewlyPublic::mustNotBe($place->account, $steps);
        $isCounted = $steps === null
            || self::mayTear($place, $steps)
            || NewlyPublic::folders($place->account, $steps) !== [];

        return $this->begin(
            $place,
            $asked->action,
            $asked->title($chosen),
            $person,
            [
                'asked' => ['chosen' => array_map(
                    static fn (ManifestEntry $entry): array => $entry->toArray(),
                    $chosen,
                )] + $asked->toArray(),
                'steps' => $isCounted ? null : self::stored($steps),
                'state' => $isCounted ? ChangeState::Counting : ChangeState::Waiting,
            ],
        );
    }

    /**
     * New contents of one file.
     *
     * @param  array<string, mixed>  $asked
     */
    public function orderSave(FilePlace $place, FileChange $save, array $asked, ?Person $person = null): ChangeByHand
    {
        return $this->begin(
            $place,
            FileAction::Save,
            ($save->seen === null ? 'Put ' : 'Save ').$save->path->name(),
            $person,
            ['asked' => $asked, 'steps' => self::stored([$save]), 'state' => ChangeState::Waiting],
        );
    }

    /**
     * Rights of many, each its own.
     *
     * @param  non-empty-list<FileChange>  $steps
     *
     * @throws Problem
     */
    public function orderRights(FilePlace $place, array $steps, ?Person $person = null): ChangeByHand
    {
        return $this->begin(
            $place,
            FileAction::SetModes,
            'Mend the permissions of '.(count($steps) === 1 ? $steps[0]->path->name() : Amount::files(count($steps))),
            $person,
            ['asked' => [], 'steps' => self::stored($steps), 'state' => ChangeState::Waiting],
        );
    }

    /**
     * A file as it was once.
     *
     * @param  string  $sha256  of a version that is kept of it
     *
     * @throws Problem
     */
    public function orderVersion(
        FilePlace $place,
        ManifestEntry $seen,
        string $sha256,
        ?Person $person = null,
    ): ChangeByHand {
        $path = RemotePath::fromString("/$seen->path");
        $version = $this->kept->one($place, $path, $sha256)
            ?? throw new Problem('This version is no longer kept. Choose another, or restore it from a backup.');

        return $this->orderSave(
            $place,
            FileChange::save($path, $seen, new StoredContent($version->sha256, $version->size), $version->mode),
            ['version' => $sha256],
            $person,
        );
    }

    /**
     * One file that a change by hand set aside, back where it was.
     *
     * @throws Problem
     */
    public function orderRestore(SetAside $held, ?Person $person = null): ChangeByHand
    {
        if ($held->restored_at !== null || $held->held_until->isPast()) {
            throw new Problem("$held->path is no longer held. Restore it from a backup.");
        }
        $path = $held->site->applicationRoot()->join(RelativePath::fromString($held->path));
        $place = FilePlace::ofSite($held->site, '')->at($path->parent())
            ?? throw new \LogicException('A file of a site lies in its files.');

        $save = FileChange::save($path, null, new StoredContent($held->sha256, (int) $held->bytes), $held->mode);

        return $this->orderSave($place, $save, ['set_aside' => $held->id], $person);
    }

    /**
     * Everything that a change did, taken back in the opposite order.
     *
     * @throws Problem
     */
    public function orderUndo(ChangeByHand $done, ?Person $person = null): ChangeByHand
    {
        $done->canUndo() || throw new Problem('There is nothing to undo: this change did nothing, or is undone.');
        $steps = $done->steps();
        $back = [];
        /** @var array<string, ManifestEntry> $then what lies there once the later steps are taken back, by path */
        $then = [];
        foreach ($done->versions()->get()->reverse() as $version) {
            $before = $version->wasBefore();
            $before?->sha256 !== null && $version->held_until->isPast()
                && throw new Problem("What $version->path held before is no longer kept here.");
            $back[] = $steps[$version->step]->undo($before, $then[$version->path] ?? $version->isAfter());
            if ($before !== null) {
                // Written back, it has another time.
                $then[$version->path] = $before->withoutTime();
            }
        }

        return ChangeByHand::create([
            'account_id' => $done->account_id,
            'site_id' => $done->site_id,
            'person_id' => ($person ?? Person::viewer())?->id,
            'undoes_id' => $done->id,
            'action' => FileAction::Undo,
            'state' => ChangeState::Waiting,
            'directory' => $done->directory,
            'title' => mb_substr('Undo: '.lcfirst($done->title), 0, 1000),
            'asked' => [],
            'steps' => self::stored(array_values(array_filter($back))),
        ]);
    }

    /**
     * Looks into the chosen folders and into the pages of the site, and says what would be done.
     *
     * @throws Problem
     */
    public function count(ChangeByHand $change): void
    {
        $asked = ChangeAsked::fromChange($change);
        $at = RemotePath::fromString($change->directory);
        $chosen = ChangeAsked::chosen($change);
        $surveyor = new Surveyor(
            new SequentialPool($this->connections->remote($change->account)),
            RunLimits::survey(),
            $this->stillAtIt($change),
        );
        $inside = [];
        foreach ($asked->looksInto($chosen) ? $chosen : [] as $entry) {
            if ($entry->kind === EntryKind::Directory) {
                $inside[(string) $entry->path] = $this->survey($surveyor, $entry, $asked);
            }
        }
        $steps = $asked->steps($at, $chosen, $inside);
        if (count($steps) > self::MOST_STEPS) {
            throw new Problem(sprintf(
                'This would be %s steps, one after the other. Do it in parts, or as a deployment.',
                number_format(count($steps)),
            ));
        }
        NewlyPublic::mustNotBe($change->account, $steps);
        foreach (NewlyPublic::folders($change->account, $steps) as $folder) {
            foreach ($surveyor->survey($folder->path)->manifest->files() as $file) {
                NewlyPublic::look(
                    $change->account,
                    $folder->path->join($file->path),
                    $folder->to?->join($file->path) ?? throw new \LogicException('It goes somewhere.'),
                );
            }
        }
        $torn = $change->site === null
            ? null
            : $this->references->look($change->site, $steps, $this->stillAtIt($change));
        ChangeByHand::where(['id' => $change->id, 'state' => ChangeState::Counting])->update([
            'steps' => json_encode(self::stored($steps), JSON_THROW_ON_ERROR),
            'refers' => $torn === null ? null : json_encode($torn->toArray(), self::AS_TEXT),
            'state' => ChangeState::Planned,
        ]);
    }

    /** Whether a person looks at what is planned before it is started: folders are in it, or pages would break. */
    public static function needsLook(ChangeByHand $change): bool
    {
        $torn = TornPages::ofChange($change);

        return ChangeAsked::fromChange($change)->looksInto(ChangeAsked::chosen($change))
            || ($torn !== null && ($torn->torn !== [] || $torn->unread !== []));
    }

    /**
     * What was planned is to be carried out now; one that stopped half way goes on behind what is done.
     *
     * @param  bool  $isMending  whether pages that would lead nowhere are mended with it
     *
     * @throws Problem
     */
    public function start(ChangeByHand $change, bool $isMending): void
    {
        $mends = $isMending && $change->state === ChangeState::Planned
            ? array_map(
                static fn (MendedPage $mend): FileChange => $mend->save,
                TornPages::ofChange($change)->mends ?? [],
            )
            : [];
        $isStarted = ChangeByHand::where('id', $change->id)
            ->whereIn('state', [ChangeState::Planned, ChangeState::Partly, ChangeState::Unclear])
            ->whereNull('undone_at')
            ->update(['state' => ChangeState::Waiting] + ($mends === [] ? [] : [
                'steps' => json_encode(self::stored([...$change->steps(), ...$mends]), JSON_THROW_ON_ERROR),
            ])) === 1;
        $isStarted || throw new Problem('This was started already. Look what became of it.');
    }

    /**
     * Whether pages may lead to what is moved or goes.
     *
     * @param  list<FileChange>  $steps
     */
    private static function mayTear(FilePlace $place, array $steps): bool
    {
        $site = $place->served();

        return $site !== null && array_filter(
            $steps,
            static fn (FileChange $step): bool => PageReferences::touches($site, $step),
        ) !== [];
    }

    /**
     * Where a site is served from is not moved away under it.
     *
     * @param  list<ManifestEntry>  $chosen
     *
     * @throws Problem
     */
    private static function leavesRoots(FilePlace $place, array $chosen, FileAction $action): void
    {
        if (! in_array($action, [FileAction::Rename, FileAction::Move, FileAction::SetAside], true)) {
            return;
        }
        foreach ($place->account->sites as $site) {
            foreach ([$site->root(), $site->applicationRoot(), ...$site->mounted()] as $root) {
                foreach ($chosen as $entry) {
                    RemotePath::fromString("/$entry->path")->contains($root) && throw new Problem(
                        "$site->domain is served from $root, so {$entry->path->name()} stays where it is. Let the site "
                            .'be served from another directory first, in its settings and at the host.',
                    );
                }
            }
        }
    }

    /** @return \Closure(): void says now and then that it is still being counted */
    private function stillAtIt(ChangeByHand $change): \Closure
    {
        $next = hrtime(true) / 1e9 + self::SECONDS_BETWEEN_SIGNS;

        return static function () use ($change, &$next): void {
            if (hrtime(true) / 1e9 > $next) {
                $next = hrtime(true) / 1e9 + self::SECONDS_BETWEEN_SIGNS;
                $change->touch();
            }
        };
    }

    private function survey(Surveyor $surveyor, ManifestEntry $entry, ChangeAsked $asked): Manifest
    {
        $inside = $surveyor->survey(RemotePath::fromString("/$entry->path"))->manifest;
        $left = $asked->action === FileAction::SetModes ? [] : FileSteps::left($inside);
        if ($left !== []) {
            throw new Problem(sprintf(
                '%s holds %s, which can be neither copied nor held here: %s. Nothing was touched.',
                $entry->path->name(),
                Count::choose(count($left), 'a link', Amount::files(count($left)).' that are links'),
                implode(', ', array_map(
                    static fn (ManifestEntry $link): string => (string) $link->path,
                    array_slice($left, 0, 3),
                )),
            ));
        }

        return $inside;
    }

    /** @param  array<string, mixed>  $columns */
    private function begin(
        FilePlace $place,
        FileAction $action,
        string $title,
        ?Person $person,
        array $columns,
    ): ChangeByHand {
        $place->account->isRemoved()
            && throw new Problem("{$place->account->title()} is removed from Cellarium. Undo the removal first.");

        return ChangeByHand::create([
            'account_id' => $place->account->id,
            'site_id' => $place->served()?->id,
            'person_id' => ($person ?? Person::viewer())?->id,
            'action' => $action,
            'directory' => $place->at->toString(),
            'title' => mb_substr($title, 0, 1000),
        ] + $columns);
    }

    /**
     * @param  list<FileChange>  $steps
     * @return list<array<string, mixed>>
     */
    private static function stored(array $steps): array
    {
        return array_map(static fn (FileChange $step): array => $step->toArray(), $steps);
    }
}
