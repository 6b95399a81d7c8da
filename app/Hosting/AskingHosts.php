<?php

declare(strict_types=1);

namespace App\Hosting;

/**
 * Permission for this process to ask a host now: workers and commands may, pages may not. A host that hangs would keep
 * the process of a page; pages order an errand instead.
 */
final class AskingHosts
{
    private bool $isPage = false;

    private int $jobs = 0;

    /** From here on a page is answered. */
    public function beginPage(): void
    {
        $this->isPage = true;
    }

    public function endPage(): void
    {
        $this->isPage = false;
    }

    public function beginJob(): void
    {
        $this->jobs++;
    }

    public function endJob(): void
    {
        $this->jobs--;
    }

    /** @throws \LogicException in a page */
    public function check(): void
    {
        if ($this->isPage && $this->jobs === 0) {
            throw new \LogicException('A page asks no host itself: it orders an errand, and a worker asks.');
        }
    }
}
