<?php

declare(strict_types=1);

namespace App\Files;

use App\Models\Errand;
use App\Models\ErrandState;
use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\File\FileMatches;
use Cellarium\Core\File\FileQuery;
use Cellarium\Core\File\FoundFile;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Transfer\Cancelled;

/** A search that a page has asked for: what it came to so far is written down while it goes on, encrypted. */
final class FileSearch
{
    private const SECONDS_BETWEEN = 0.7;

    private float $next = 0.0;

    private function __construct(private readonly Errand $errand, public FileMatches $findings)
    {
    }

    public static function begun(Errand $errand): self
    {
        return new self($errand, new FileMatches);
    }

    /** As far as it has come. */
    public static function read(Errand $errand): self
    {
        $findings = new FileMatches;
        $kept = $errand->result ?? [];
        $findings->directories = $kept['directories'] ?? 0;
        $findings->names = $kept['names'] ?? 0;
        $findings->read = $kept['read'] ?? 0;
        $findings->tooLarge = $kept['too_large'] ?? 0;
        $findings->unread = $kept['unread'] ?? [];
        $findings->found = array_map(self::fromList(...), $kept['found'] ?? []);
        $findings->isCut = $kept['is_cut'] ?? false;

        return new self($errand, $findings);
    }

    public static function query(Errand $errand): FileQuery
    {
        return FileQuery::fromFields(new JsonFields($errand->given['sought'] ?? (new FileQuery)->toArray()));
    }

    /** @throws Cancelled once somebody has cancelled it */
    public function hear(FileMatches $findings): void
    {
        $this->findings = $findings;
        if (hrtime(true) / 1e9 < $this->next) {
            return;
        }
        $this->next = hrtime(true) / 1e9 + self::SECONDS_BETWEEN;
        $this->keepLast();
        Errand::whereKey($this->errand->id)->where('state', ErrandState::Running)->exists()
            || throw Cancelled::byAPerson();
    }

    /** What was heard of last. */
    public function keepLast(): void
    {
        $findings = $this->findings;
        $this->errand->update(['result' => [
            'directories' => $findings->directories,
            'names' => $findings->names,
            'read' => $findings->read,
            'too_large' => $findings->tooLarge,
            'unread' => $findings->unread,
            'found' => array_map(self::toList(...), $findings->found),
            'is_cut' => $findings->isCut,
        ]]);
    }

    /** @return list<mixed> */
    private static function toList(FoundFile $found): array
    {
        $entry = $found->entry;

        return [
            $found->path->toString(),
            $entry->kind->value,
            $entry->size,
            $entry->modified,
            $entry->mode,
            $found->count,
            $found->lines,
            $found->isSensitive,
        ];
    }

    /** @param  list<mixed>  $list */
    private static function fromList(array $list): FoundFile
    {
        [$path, $kind, $size, $modified, $mode, $count, $lines] = $list;
        $isSensitive = (bool) ($list[7] ?? true); // Of a search by an earlier version nobody knows.
        $path = RemotePath::fromString($path);

        return new FoundFile(
            $path,
            new RemoteEntry($path->name(), EntryKind::from($kind), $size, $modified, $mode),
            $count,
            $lines,
            $isSensitive,
        );
    }
}
