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
    /** Digits and a line end, which say where the table of contents begins. */
    private const FOOTER = 20;

    /** @param  string  $name  under which it is kept */
    public function __construct(private Journal $journal, private string $name)
    {
    }

    /** @throws StoreFailure with what was kept before untouched */
    public function keep(Plan $plan): void
    {
        $this->journal->keep($this->name, self::pieces($plan));
    }

    /** All of it; null where there is none. */
    public function plan(): ?Plan
    {
        $file = $this->journal->open($this->name);

        return $file === null ? null : Plan::fromText((string) stream_get_contents($file, self::textEnds($file), 0));
    }

    /** For looking at parts of it; null where there is none. */
    public function reader(): ?PlanReader
    {
        $file = $this->journal->open($this->name);
        if ($file === null) {
            return null;
        }
        $ends = self::textEnds($file);
        $contents = (string) stream_get_contents($file, -self::FOOTER - $ends + self::size($file), $ends);

        return new PlanReader($file, PlanContents::fromText($contents));
    }

    /**
     * Text, table of contents, and where that begins, in one: neither is ever that of another plan.
     *
     * @return \Generator<int, string>
     */
    private static function pieces(Plan $plan): \Generator
    {
        $ends = 0;
        $lines = PlanContents::write($plan);
        foreach ($lines as $piece) {
            $ends += strlen($piece);
            yield $piece;
        }
        yield from $lines->getReturn()->lines();
        yield sprintf('%0'.(self::FOOTER - 1)."d\n", $ends);
    }

    /**
     * @param  resource  $file
     * @return int<0, max> where the text ends, and its table of contents begins
     *
     * @throws \UnexpectedValueException when it is not whole
     */
    private static function textEnds($file): int
    {
        $footer = (string) stream_get_contents($file, self::FOOTER, max(0, self::size($file) - self::FOOTER));

        return preg_match('/\A\d{'.(self::FOOTER - 1).'}\n\z/', $footer) === 1
            ? max(0, (int) $footer)
            : throw new \UnexpectedValueException('The plan that was stored is not whole.');
    }

    /** @param  resource  $file */
    private static function size($file): int
    {
        return fstat($file)['size'] ?? 0;
    }
}
