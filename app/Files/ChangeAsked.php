<?php

declare(strict_types=1);

namespace App\Files;

use App\Failure\Problem;
use App\Models\ChangeByHand;
use App\Models\FileAction;
use App\Text\Amount;
use Cellarium\Core\File\FileChange;
use Cellarium\Core\File\FileSteps;
use Cellarium\Core\File\Rights;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;

/** A request to change the files that somebody chose. */
final readonly class ChangeAsked
{
    /**
     * @param  string|null  $name  the new one
     * @param  RemotePath|null  $to  the directory to move or copy to
     * @param  int|null  $files  mode of files, twelve bits; null where it stays
     * @param  int|null  $directories  mode of directories
     * @param  bool  $below  whether modes are set in all that lies below as well
     */
    public function __construct(
        public FileAction $action,
        public ?string $name = null,
        public ?RemotePath $to = null,
        public ?int $files = null,
        public ?int $directories = null,
        public bool $below = false,
    ) {
    }

    /**
     * Whether it has to be seen first what lies in chosen folders.
     *
     * @param  list<ManifestEntry>  $chosen
     */
    public function looksInto(array $chosen): bool
    {
        $hasFolder = array_filter(
            $chosen,
            static fn (ManifestEntry $entry): bool => $entry->kind === EntryKind::Directory,
        ) !== [];

        return $hasFolder && match ($this->action) {
            FileAction::Copy, FileAction::SetAside => true,
            FileAction::SetModes => $this->below,
            default => false,
        };
    }

    /**
     * @param  list<ManifestEntry>  $chosen
     * @param  array<string, Manifest>  $inside  of chosen folders, by path
     * @return list<FileChange>
     *
     * @throws Problem
     */
    public function steps(RemotePath $at, array $chosen, array $inside): array
    {
        if ($this->action === FileAction::NewFolder) {
            return [FileChange::makeDirectory($at->child($this->newName()))];
        }
        $steps = [];
        foreach ($chosen as $entry) {
            $within = $inside[(string) $entry->path] ?? null;
            $steps[] = match ($this->action) {
                FileAction::Rename => [FileChange::rename(
                    RemotePath::fromString("/$entry->path"),
                    $entry,
                    $at->child($this->newName()),
                )],
                FileAction::Move => FileSteps::move($entry, $this->target()),
                FileAction::Copy => FileSteps::copy(
                    $entry,
                    $this->target()->child($this->name ?? $entry->path->name()),
                    $within,
                ),
                FileAction::SetAside => FileSteps::setAside($entry, $within),
                FileAction::SetModes => FileSteps::setModes($entry, $this->files, $this->directories, $within),
                default => throw new \LogicException("{$this->action->value} is ordered otherwise."),
            };
        }
        $all = array_merge(...$steps);
        $all === [] && throw new Problem('All of them have these permissions already. Nothing was changed.');

        return $all;
    }

    /** @param  list<ManifestEntry>  $chosen */
    public function title(array $chosen): string
    {
        $what = count($chosen) === 1
            ? $chosen[0]->path->name()
            : Amount::files(count($chosen));

        return match ($this->action) {
            FileAction::NewFolder => "New folder $this->name",
            FileAction::Rename => "Rename $what to $this->name",
            FileAction::Move => "Move $what to $this->to",
            FileAction::Copy => "Copy $what to $this->to",
            FileAction::SetAside => "Set $what aside",
            FileAction::SetModes => "Set the permissions of $what to ".implode(' and ', array_filter([
                $this->files === null ? null : Rights::digits($this->files),
                $this->directories === null || $this->directories === $this->files
                    ? null
                    : Rights::digits($this->directories).' for folders',
            ])),
            default => $what,
        };
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'name' => $this->name,
            'to' => $this->to?->toString(),
            'files' => $this->files,
            'directories' => $this->directories,
            'below' => $this->below,
        ];
    }

    public static function fromChange(ChangeByHand $change): self
    {
        $asked = $change->asked;

        return new self(
            $change->action,
            $asked['name'],
            $asked['to'] === null ? null : RemotePath::fromString($asked['to']),
            $asked['files'],
            $asked['directories'],
            $asked['below'],
        );
    }

    /** @return list<ManifestEntry> */
    public static function chosen(ChangeByHand $change): array
    {
        return array_map(
            static fn (array $entry): ManifestEntry => ManifestEntry::fromFields(new JsonFields($entry)),
            $change->asked['chosen'],
        );
    }

    /** @throws Problem */
    private function newName(): string
    {
        $name = RelativePath::tryFromString((string) $this->name);

        return $name !== null && $name->depth() === 1 && strlen($name->name()) <= 255
            ? $name->name()
            : throw new Problem('A name has no slash in it, is not empty, and has at most 255 bytes. Choose another.');
    }

    /** @throws Problem */
    private function target(): RemotePath
    {
        return $this->to ?? throw new Problem('Say which folder it is to go to.');
    }
}
