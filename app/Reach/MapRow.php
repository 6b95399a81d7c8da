<?php

declare(strict_types=1);

namespace App\Reach;

use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Words\Count;

/** One row of the reach map. */
final readonly class MapRow
{
    /**
     * @param  string  $path  of a fold: of the directory that holds what is folded
     * @param  list<string>  $serves  what visitors see the directory as
     * @param  int  $secrets  files with passwords or keys, copies and dumps that were seen there
     * @param  bool  $scripts  whether scripts lie where visitors upload
     * @param  string|null  $target  what a link points to; "" where that is not known
     * @param  int|null  $leads  the row a link points to
     */
    public function __construct(
        public RowKind $kind,
        public string $path,
        public string $name,
        public int $depth,
        public array $serves = [],
        public bool $looked = true,
        public bool $gone = false,
        public int $secrets = 0,
        public bool $scripts = false,
        public ?string $target = null,
        public ?int $leads = null,
    ) {
    }

    public function withLead(?int $row): self
    {
        return new self(...['leads' => $row] + get_object_vars($this));
    }

    public function place(): RemotePath
    {
        return RemotePath::fromString($this->path);
    }

    public function isDirectory(): bool
    {
        return $this->kind === RowKind::Directory;
    }

    public function isLink(): bool
    {
        return $this->kind === RowKind::Link;
    }

    public function isFold(): bool
    {
        return $this->kind === RowKind::Fold;
    }

    /** What keeps a directory from being read like the others; null where nothing does. */
    public function trouble(): ?string
    {
        return match (true) {
            $this->gone => 'not there',
            ! $this->looked => 'not looked into',
            default => null,
        };
    }

    public function secretsWords(): string
    {
        return Count::choose($this->secrets, 'a secret file', "$this->secrets secret files");
    }

    public function targetWords(): string
    {
        return (string) $this->target === '' ? 'somewhere' : (string) $this->target;
    }
}
