<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Plan\PlanContents;
use Cellarium\Core\Plan\PlanReader;
use Cellarium\Core\Storage\StoreFailure;

/** A plan in a journal: its text, and the table of contents by which parts of it are read. */
final readonly class KeptPlan
{
    /** @param  string  $name  under which it is kept */
    public function __construct(private Journal $journal, private string $name)
    {
    }

    /** @throws StoreFailure */
    public function keep(Plan $plan): void
    {
        $lines = PlanContents::write($plan);
        $this->journal->keep($this->name, $lines);
        $this->journal->keep("$this->name.contents", $lines->getReturn()->lines());
    }

    /** All of it; null where there is none. */
    public function plan(): ?Plan
    {
        $text = $this->journal->kept($this->name);

        return $text === null ? null : Plan::fromText($text);
    }

    /** For looking at parts of it; null where there is none. */
    public function reader(): ?PlanReader
    {
        $text = $this->journal->open($this->name);
        $contents = $this->journal->kept("$this->name.contents");

        return $text === null || $contents === null ? null : new PlanReader($text, PlanContents::fromText($contents));
    }
}
