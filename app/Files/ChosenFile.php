<?php

declare(strict_types=1);

namespace App\Files;

use App\Text\Amount;
use Cellarium\Core\File\MediaType;
use Cellarium\Core\File\PrivateName;
use Cellarium\Core\File\Rights;
use Cellarium\Core\File\TextFile;
use Cellarium\Core\File\VisitorsGet;

/** The one file or folder that is looked at beside its directory. */
final readonly class ChosenFile
{
    /** Larger pictures are shown when somebody asks for it, in bytes. */
    private const AT_ONCE = 2_000_000;

    /**
     * @param  list<KeptVersion>  $versions  what it held once, newest first
     * @param  list<int>  $unread  numbers of backups that could not be looked into for it
     */
    private function __construct(
        public FilePlace $place,
        public FileRow $row,
        public array $versions,
        public array $unread,
    ) {
    }

    /** Null where the directory has no such name. */
    public static function fromTable(FileTable $table, ?string $name, KeptVersions $kept): ?self
    {
        foreach ($name === null ? [] : Listings::lists($table->listing) ?? [] as $list) {
            if ($list[FileEntry::NAME] === $name) {
                $entry = FileEntry::fromList($list);
                $row = $table->row($entry);

                $now = FileEntry::seen($table->place->at, $entry->seenWord());

                $unread = [];
                $versions = $entry->isFile() ? $kept->of($table->place, $row->path, $now, $unread) : [];

                return new self($table->place, $row, $versions, $unread);
            }
        }

        return null;
    }

    public function address(): ?string
    {
        $address = $this->place->addressOf($this->row->path);

        return $address !== null && $this->row->entry->isDirectory() ? "$address/" : $address;
    }

    /**
     * @return list<array{string, list<array{string, int, bool}>}> who, and for each right its name, its bit, whether it
     *     is had
     */
    public function grid(): array
    {
        $mode = $this->row->entry->mode ?? 0;
        $rows = [];
        foreach (Rights::WHO as $place => $who) {
            $row = [];
            foreach (Rights::WHAT as $bit => $what) {
                $value = 1 << (8 - 3 * $place - $bit);
                $row[] = [$what, $value, ($mode & $value) !== 0];
            }
            $rows[] = [$who, $row];
        }

        return $rows;
    }

    /** What a right is called: a folder is not run. */
    public function right(string $what): string
    {
        return $what === 'run' && $this->row->entry->isDirectory() ? 'enter' : $what;
    }

    public function digits(): string
    {
        return $this->row->entry->mode === null ? '' : Rights::digits($this->row->entry->mode);
    }

    /** The mode that lets visitors in who were refused, or keeps those out who should not change it; else null. */
    public function mend(): ?string
    {
        $opened = $this->row->visitors()?->get === VisitorsGet::Refused ? $this->row->rights()?->opened() : null;

        $better = $opened ?? $this->row->rights()?->narrowed();

        return $better === null ? null : Rights::digits($better);
    }

    /** The sentence above the rights of one that visitors are refused. */
    public function refused(): string
    {
        return $this->row->entry->isDirectory()
            ? 'Visitors are refused: only its owner may look into it.'
            : 'Visitors are refused: not everyone may read it.';
    }

    /** The words of a folder that nobody guesses; null for any other. */
    public function privateWords(): ?string
    {
        $name = $this->row->entry->name;

        return $this->row->entry->isDirectory() && PrivateName::isOne($name) ? PrivateName::words($name) : null;
    }

    /** What a browser can show of it; null where nothing. */
    public function media(): ?MediaType
    {
        return $this->row->entry->isFile() && ($this->row->entry->size ?? 0) <= FileLook::MOST
            ? MediaType::fromName($this->row->entry->name)
            : null;
    }

    /** Where that comes from; another address once the file is another. */
    public function lookUrl(): string
    {
        return $this->place->lookUrl($this->row->path).'?seen='.hash('xxh64', $this->row->entry->seenWord());
    }

    /** Whether it is shown without being asked for. */
    public function isShownAtOnce(): bool
    {
        return $this->media()?->kind() === 'image' && ($this->row->entry->size ?? 0) <= self::AT_ONCE;
    }

    /** Whether it is worth opening as text: small enough, and not named as what surely is none. */
    public function mayBeText(): bool
    {
        return ($this->row->entry->size ?? 0) <= TextFile::MOST && TextFile::mayBeOne($this->row->entry->name);
    }

    /** Its facts in a line. */
    public function facts(): string
    {
        $entry = $this->row->entry;

        return implode(', ', array_filter([
            match (true) {
                $entry->target !== null => "link to $entry->target",
                $entry->isDirectory() => 'folder',
                default => Amount::bytes($entry->size),
            },
            $entry->modified === null ? null : 'changed '.$this->row->changed(),
            $entry->exact ? null : 'to the minute',
        ]));
    }
}
