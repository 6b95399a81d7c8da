<?php

declare(strict_types=1);

namespace App\Files;

use App\Models\Deployment;
use App\Models\DirectoryListing;
use Cellarium\Core\Manifest\EntryKind;
use Illuminate\Support\Collection;

/** A directory as a table: sorted, without what is hidden where that is not asked for, and drawn piece by piece. */
final readonly class FileTable
{
    public const SORTS = ['name', 'size', 'changed', 'rights', 'from'];

    /** So many rows are drawn at once; the next ones when they come into sight. */
    private const ROWS = 100;

    public int $files;

    public int $folders;

    public int $hidden;

    /** How many match. */
    public int $count;

    /** @var list<FileEntry> of this piece */
    public array $rows;

    /** @var Collection<int, Deployment> by number */
    public Collection $deployments;

    /**
     * @param  list<list<mixed>>  $lists  as they are stored
     * @param  bool  $known  whether it was ever seen; else nothing here says that it is empty
     */
    private function __construct(
        public FilePlace $place,
        public ?DirectoryListing $listing,
        public FileOrder $order,
        public bool $known,
        array $lists,
        public int $from,
    ) {
        $kinds = array_count_values(array_column($lists, FileEntry::KIND));
        $this->folders = $kinds[EntryKind::Directory->value] ?? 0;
        $this->files = count($lists) - $this->folders;
        $this->hidden = count(array_filter(
            $lists,
            static fn (array $list): bool => ((string) $list[FileEntry::NAME])[0] === '.',
        ));
        $shown = $order->applied($lists);
        $this->count = count($shown);
        $this->rows = array_map(FileEntry::fromList(...), array_slice($shown, $from, self::ROWS));
        $this->deployments = Deployment::with(Deployment::titled())
            ->whereIn('id', array_unique(array_filter(array_column($this->rows, 'deployment'))))
            ->get()
            ->keyBy('id');
    }

    public static function fromListing(
        FilePlace $place,
        ?DirectoryListing $listing,
        FileOrder $order,
        int $from = 0,
    ): self {
        $lists = Listings::lists($listing);

        return new self($place, $listing, $order, $lists !== null, $lists ?? [], max(0, $from));
    }

    /** Where the next piece is; null where this is the last. */
    public function next(): ?string
    {
        $next = $this->from + self::ROWS;

        return $next < $this->count ? $this->place->url(null, $this->order->query() + ['from' => $next]) : null;
    }

    public function isWhole(): bool
    {
        return $this->count === $this->files + $this->folders;
    }

    public function row(FileEntry $entry): FileRow
    {
        return new FileRow(
            $this->place,
            $entry,
            $entry->deployment === null ? null : $this->deployments[$entry->deployment] ?? null,
            $this->listing->answers[$entry->name] ?? null,
        );
    }
}
