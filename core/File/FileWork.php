<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Path\TemporaryName;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\StoredContent;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Transfer\Job\DiscardFile;
use Cellarium\Core\Transfer\Job\HashFile;
use Cellarium\Core\Transfer\Job\KeepFile;
use Cellarium\Core\Transfer\Job\RenameFile;
use Cellarium\Core\Transfer\Job\SendContent;
use Cellarium\Core\Transfer\Job\SetMode;
use Cellarium\Core\Transfer\JobRunner;
use Cellarium\Core\Transfer\Surveyor;

/**
 * Carries out steps of a change by hand: what lies there is compared with what was seen, contents are held here before
 * they are touched, new ones are sent under a temporary name, read back and only then given their name, and what the
 * server says afterwards is what counts.
 */
final readonly class FileWork
{
    private JobRunner $runner;

    /** @param  string  $run  a name of a to z and 0 to 9 that nobody else uses, for temporary names */
    public function __construct(private RemoteDirectory $remote, private ContentStore $store, private string $run)
    {
        $this->runner = new JobRunner($remote, $store);
    }

    /**
     * @param  (\Closure(?ManifestEntry): void)|null  $held  is given what lies there once all of it that the step
     *     would lose is held here, before anything is touched
     *
     * @throws FileChangeRefused nothing was touched
     * @throws RemoteFailure|StoreFailure what was there is there, or it is for settle() to say
     */
    public function carryOut(FileChange $change, ?\Closure $held = null): FileStepResult
    {
        $before = $this->agreed($change);
        if (in_array($change->kind, [FileChangeKind::Save, FileChangeKind::SetAside], true) && $before !== null) {
            $before = $this->kept($change, $before);
        }
        $held === null || $held($before);
        $modeRefused = match ($change->kind) {
            FileChangeKind::Save => $this->save($change, $before),
            FileChangeKind::MakeDirectory => $this->makeDirectory($change),
            FileChangeKind::RemoveDirectory => $this->plainly(fn () => $this->remote->removeDirectory($change->path)),
            FileChangeKind::Rename => $this->plainly(
                fn () => $this->remote->rename($change->path, $change->to ?? $change->path),
            ),
            FileChangeKind::Copy => $this->copy($change, $before),
            FileChangeKind::SetAside => $this->plainly(fn () => $this->remote->remove($change->path)),
            FileChangeKind::SetMode => $this->runner->run(new SetMode(
                $change->path,
                (int) $change->mode,
                $change->path->toString(),
            ))->modeRefused,
        };

        return new FileStepResult($before, $this->confirmed($change, $before, $modeRefused), $modeRefused);
    }

    /**
     * How a step stands that was broken off anywhere, in whichever process; what it left under a temporary name goes.
     *
     * @param  ManifestEntry|null  $before  as it was noted before anything was touched; null where that never came, and
     *     where nothing was to lie there
     *
     * @throws RemoteFailure as long as the server cannot be asked
     */
    public function settle(FileChange $change, ?ManifestEntry $before): FileSettled
    {
        foreach ([$change->path, $change->to] as $touched) {
            $touched === null ?: $this->runner->run(new DiscardFile($this->temporary($touched)));
        }
        $now = $this->look($change->path);
        $there = $change->to === null ? null : $this->look($change->to);
        $outcome = match (true) {
            $change->seen !== null && $before === null => FileOutcome::NotDone,
            default => $this->outcome($change, $before, $now, $there),
        };

        return new FileSettled($outcome, $there ?? $now);
    }

    private function outcome(
        FileChange $change,
        ?ManifestEntry $before,
        ?ManifestEntry $now,
        ?ManifestEntry $there,
    ): FileOutcome {
        return match ($change->kind) {
            FileChangeKind::Save => $this->settledContents($change, $before, $now),
            FileChangeKind::MakeDirectory => $now?->kind === EntryKind::Directory
                ? FileOutcome::Done
                : FileOutcome::NotDone,
            FileChangeKind::RemoveDirectory, FileChangeKind::SetAside => $now === null
                ? FileOutcome::Done
                : FileOutcome::NotDone,
            FileChangeKind::Rename => match (true) {
                $now === null && $there !== null => FileOutcome::Done,
                $now !== null && $there === null => FileOutcome::NotDone,
                default => FileOutcome::Unclear,
            },
            FileChangeKind::Copy => match (true) {
                $there === null => FileOutcome::NotDone,
                $there->size === $before?->size => FileOutcome::Done,
                default => FileOutcome::Unclear,
            },
            FileChangeKind::SetMode => $now?->mode === $change->mode ? FileOutcome::Done : FileOutcome::NotDone,
        };
    }

    /**
     * What lies there, if that is what was seen, and nothing where nothing is to be.
     *
     * @throws FileChangeRefused|RemoteFailure
     */
    private function agreed(FileChange $change): ?ManifestEntry
    {
        if ($change->to !== null && $change->path->contains($change->to)) {
            throw FileChangeRefused::intoItself($change->path, $change->to);
        }
        $now = $this->look($change->path);
        if ($change->to !== null && ($there = $this->look($change->to)) !== null) {
            throw FileChangeRefused::somethingThere($change->to, $there);
        }
        if ($change->seen === null) {
            return $now === null ? null : throw FileChangeRefused::somethingThere($change->path, $now);
        }
        if ($now === null) {
            throw FileChangeRefused::noLongerThere($change->path);
        }
        $onFiles = [FileChangeKind::Save, FileChangeKind::Copy, FileChangeKind::SetAside];
        if (in_array($change->kind, $onFiles, true) && ! $now->isFile()) {
            throw FileChangeRefused::notAFile($change->path, $now);
        }
        if (! self::isAsSeen($change, $now)) {
            throw FileChangeRefused::changedMeanwhile($change->path, $now);
        }
        if ($change->kind === FileChangeKind::RemoveDirectory && $this->remote->list($change->path) !== []) {
            throw FileChangeRefused::notEmpty($change->path);
        }

        return $now;
    }

    private static function isAsSeen(FileChange $change, ManifestEntry $now): bool
    {
        $seen = $change->seen ?? $now;
        if ($seen->kind !== $now->kind) {
            return false;
        }
        if ($change->kind === FileChangeKind::SetMode) {
            return $seen->mode === $now->mode;
        }

        // A directory is changed by whatever lies in it; that is compared by itself.
        return ! $now->isFile() || ($seen->size === $now->size
            && ($seen->modified === null || $now->modified === null || $seen->modified === $now->modified));
    }

    /**
     * Its contents, held here and verified, before they are touched.
     *
     * @throws FileChangeRefused where they are not those that were seen
     */
    private function kept(FileChange $change, ManifestEntry $now): ManifestEntry
    {
        $content = $this->fetched($change->path, $now->size);
        if ($change->seen?->sha256 !== null && $change->seen->sha256 !== $content->sha256) {
            throw FileChangeRefused::changedMeanwhile($change->path, $now);
        }

        return $now->withSha256($content->sha256);
    }

    private function fetched(RemotePath $file, int $size): StoredContent
    {
        $came = $this->runner->run(new KeepFile($file, $size, $file->toString()));
        $content = new StoredContent((string) $came->sha256, $came->bytes);

        return $this->store->isIntact($content->sha256, $content->size)
            ? $content
            : throw StoreFailure::damaged($file->toString());
    }

    /** @return bool whether the server did not set the mode */
    private function save(FileChange $change, ?ManifestEntry $before): bool
    {
        $temporary = $this->temporary($change->path);
        $mode = $change->mode ?? $before?->mode;
        try {
            $this->sent((string) $change->sha256, $change->size, $temporary);
            // What lies there may have been changed while this was sent.
            $this->agreed($change);

            return $this->runner->run(new RenameFile(
                $temporary,
                $change->path,
                $mode,
                $change->path->toString(),
            ))->modeRefused;
        } catch (\Throwable $failure) {
            $this->discarded($temporary);
            throw $failure;
        }
    }

    /** @return false */
    private function copy(FileChange $change, ?ManifestEntry $before): bool
    {
        $to = $change->to ?? $change->path;
        $size = (int) $before?->size;
        $content = $this->fetched($change->path, $size);
        $temporary = $this->temporary($to);
        try {
            $this->sent($content->sha256, $size, $temporary);
            $this->agreed($change);
            $this->runner->run(new RenameFile($temporary, $to, $before?->mode, $to->toString()));
        } catch (\Throwable $failure) {
            $this->discarded($temporary);
            throw $failure;
        }

        return false;
    }

    /** @throws RemoteFailure Incomplete where what arrived is not what was sent */
    private function sent(string $sha256, int $size, RemotePath $temporary): void
    {
        $this->runner->run(new SendContent($sha256, $temporary, $size, $temporary->toString()));
        $arrived = $this->runner->run(new HashFile($temporary, $size, $temporary->toString()))->sha256;
        if ($arrived !== $sha256) {
            throw RemoteFailure::while(
                "reading back what was sent to {$temporary->parent()}",
                FailureReason::Incomplete,
            );
        }
    }

    /** @return bool whether the server did not set the mode */
    private function makeDirectory(FileChange $change): bool
    {
        $this->remote->makeDirectory($change->path);

        return $change->mode !== null && $this->runner->run(new SetMode(
            $change->path,
            $change->mode,
            $change->path->toString(),
        ))->modeRefused;
    }

    /**
     * What the server has now, in place of what it was.
     *
     * @throws RemoteFailure where it is not as the step should have left it
     */
    private function confirmed(FileChange $change, ?ManifestEntry $before, bool $modeRefused): ?ManifestEntry
    {
        $now = $this->look($change->path);
        $there = $change->to === null ? null : $this->look($change->to);
        $isDone = match ($change->kind) {
            FileChangeKind::Save => $now?->isFile() === true && $now->size === $change->size,
            FileChangeKind::MakeDirectory => $now?->kind === EntryKind::Directory,
            FileChangeKind::RemoveDirectory, FileChangeKind::SetAside => $now === null,
            FileChangeKind::Rename => $now === null && $there?->kind === $before?->kind,
            FileChangeKind::Copy => $now !== null && $there?->size === $before?->size,
            FileChangeKind::SetMode => $modeRefused || $now?->mode === null || $now->mode === $change->mode,
        };
        if (! $isDone) {
            throw RemoteFailure::while(
                "looking at $change->path afterwards",
                FailureReason::Incomplete,
                'the server took the change and lists something else',
            );
        }

        return match ($change->kind) {
            FileChangeKind::Save => $now?->withSha256($change->sha256),
            FileChangeKind::Rename => $there?->withSha256($before?->sha256),
            FileChangeKind::Copy => $there,
            default => $now,
        };
    }

    private function settledContents(FileChange $change, ?ManifestEntry $before, ?ManifestEntry $now): FileOutcome
    {
        if ($now === null) {
            return $before === null ? FileOutcome::NotDone : FileOutcome::Unclear;
        }
        $sha256 = $now->isFile()
            ? $this->runner->run(new HashFile($change->path, $now->size, $change->path->toString()))->sha256
            : null;

        return match ($sha256) {
            null => FileOutcome::Unclear,
            $change->sha256 => FileOutcome::Done,
            $before?->sha256 => FileOutcome::NotDone,
            default => FileOutcome::Unclear,
        };
    }

    private function look(RemotePath $path): ?ManifestEntry
    {
        $found = $this->remote->stat($path);

        return $found === null ? null : Surveyor::entry(
            RelativePath::fromString(ltrim($path->toString(), '/')),
            $found,
        );
    }

    private function temporary(RemotePath $path): RemotePath
    {
        return $path->parent()->child(TemporaryName::forRun($this->run, 0));
    }

    /** What cannot be taken away now, since the connection is gone, settle() takes away. */
    private function discarded(RemotePath $temporary): void
    {
        try {
            $this->runner->run(new DiscardFile($temporary));
        } catch (RemoteFailure) {
        }
    }

    /**
     * @param  \Closure(): void  $work
     * @return false there is no mode to refuse
     */
    private function plainly(\Closure $work): bool
    {
        $work();

        return false;
    }
}
