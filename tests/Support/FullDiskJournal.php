<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Deployment\Journal;
use Cellarium\Core\Deployment\JournalMark;
use Cellarium\Core\Storage\StoreFailure;

/** A real journal on a disk that takes so many writings and none after. */
final class FullDiskJournal implements Journal
{
    public function __construct(private readonly Journal $inner, private int $room)
    {
    }

    public function note(JournalMark $mark, string $subject = ''): void
    {
        $this->take();
        $this->inner->note($mark, $subject);
    }

    public function keep(string $name, string|iterable $text): void
    {
        $this->take();
        $this->inner->keep($name, $text);
    }

    private function take(): void
    {
        if (--$this->room < 0) {
            throw StoreFailure::writing('the journal');
        }
    }

    public function noted(JournalMark $mark): array
    {
        return $this->inner->noted($mark);
    }

    public function has(JournalMark $mark): bool
    {
        return $this->inner->has($mark);
    }

    public function kept(string $name): ?string
    {
        return $this->inner->kept($name);
    }

    public function open(string $name)
    {
        return $this->inner->open($name);
    }
}
