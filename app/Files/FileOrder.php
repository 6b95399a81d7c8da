<?php

declare(strict_types=1);

namespace App\Files;

use App\Models\FilesRemembered;
use App\Models\Person;
use Cellarium\Core\File\NamePattern;
use Cellarium\Core\Manifest\EntryKind;
use Illuminate\Http\Request;

/** In which order a directory is shown, and what of it. */
final readonly class FileOrder
{
    /** @param  string  $words  that a name has in it; "*" and "?" stand for other characters then */
    private function __construct(
        public string $by,
        public bool $down,
        public bool $hidden,
        public string $words,
    ) {
    }

    /** As asked for; where nothing is, as it was last here. */
    public static function fromRequest(Request $request, FilePlace $place): self
    {
        $person = Person::viewer();
        $last = $person === null ? null : FilesRemembered::forPerson($person, $place->owner());
        $by = $request->query('sort') ?? $last?->sort;
        $order = new self(
            in_array($by, FileTable::SORTS, true) ? $by : 'name',
            (bool) ($request->query('down') ?? $last?->down),
            (bool) ($request->query('hidden') ?? $last?->hidden),
            mb_substr((string) $request->query('name'), 0, 200),
        );
        $now = [
            'sort' => $order->by,
            'down' => $order->down,
            'hidden' => $order->hidden,
            'at' => $place->at->toString(),
        ];
        if ($person !== null && $now !== $last?->only(array_keys($now))) {
            FilesRemembered::updateOrCreate(['person_id' => $person->id, 'owner' => $place->owner()], $now);
        }

        return $order;
    }

    /** Where somebody was last among files; null where they were not yet. */
    public static function lastAt(FilePlace $place): ?string
    {
        $person = Person::viewer();

        return $person === null ? null : FilesRemembered::forPerson($person, $place->owner())?->at;
    }

    /** @return array<string, scalar|null> */
    public function query(): array
    {
        return [
            'sort' => $this->by,
            'down' => (int) $this->down,
            'hidden' => (int) $this->hidden,
            'name' => $this->words === '' ? null : $this->words,
        ];
    }

    /** @return array<string, scalar|null> that turns a column round, or sorts by it */
    public function by(string $column): array
    {
        return [
            'sort' => $column,
            'down' => (int) ($this->by === $column && ! $this->down),
        ] + $this->query();
    }

    /** @return array<string, scalar|null> the same with hidden files, or without */
    public function withHidden(bool $hidden): array
    {
        return ['hidden' => (int) $hidden] + $this->query();
    }

    /** As ARIA has it. */
    public function sorts(string $column): string
    {
        return match (true) {
            $this->by !== $column => 'none',
            $this->down => 'descending',
            default => 'ascending',
        };
    }

    public function arrow(string $column): string
    {
        return match ($this->sorts($column)) {
            'none' => '',
            'descending' => ' ↓',
            default => ' ↑',
        };
    }

    /**
     * @param  list<list<mixed>>  $lists  as they are stored, see FileEntry::toList()
     * @return list<list<mixed>> folders first
     */
    public function applied(array $lists): array
    {
        $shown = $this->hidden && $this->words === '' ? $lists : array_values(array_filter($lists, $this->shows(...)));
        if ($this->by === 'name') {
            return $this->down ? self::turned($shown) : $shown;
        }
        $kinds = array_map(self::kind(...), $shown);
        $facts = match ($this->by) {
            'from' => array_map(
                static fn (array $list): string => $list[FileEntry::FROM].' '.$list[FileEntry::DEPLOYMENT],
                $shown,
            ),
            default => array_map(intval(...), array_column($shown, match ($this->by) {
                'size' => FileEntry::SIZE,
                'rights' => FileEntry::MODE,
                default => FileEntry::MODIFIED,
            })),
        };
        // What is alike stays by name.
        $places = range(0, max(0, count($shown) - 1));
        array_multisort($kinds, SORT_ASC, $facts, $this->down ? SORT_DESC : SORT_ASC, $places, SORT_ASC, $shown);

        return $shown;
    }

    /**
     * @param  list<list<mixed>>  $lists
     * @return list<list<mixed>> folders first, numbers in names by what they are
     */
    public static function byName(array $lists): array
    {
        $kinds = array_map(self::kind(...), $lists);
        $names = array_map(static fn (array $list): string => mb_strtolower((string) $list[FileEntry::NAME]), $lists);
        array_multisort($kinds, SORT_ASC, $names, SORT_ASC, SORT_NATURAL, $lists);

        return $lists;
    }

    /**
     * @param  list<list<mixed>>  $lists
     * @return list<list<mixed>> the other way round, folders first all the same
     */
    private static function turned(array $lists): array
    {
        $folders = count(array_filter($lists, static fn (array $list): bool => self::kind($list) === 0));

        return [
            ...array_reverse(array_slice($lists, 0, $folders)),
            ...array_reverse(array_slice($lists, $folders)),
        ];
    }

    /** @param  list<mixed>  $list */
    private static function kind(array $list): int
    {
        return $list[FileEntry::KIND] === EntryKind::Directory->value ? 0 : 1;
    }

    /** @param  list<mixed>  $list */
    private function shows(array $list): bool
    {
        $name = (string) $list[FileEntry::NAME];
        if ($name[0] === '.' && ! $this->hidden) {
            return false;
        }

        return (new NamePattern($this->words))->fits($name);
    }
}
