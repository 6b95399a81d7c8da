<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

use Cellarium\Core\Json\JsonFields;

/** Reads what is asked for out of a plan's text, and no more. */
final readonly class PlanReader
{
    /** @param  resource  $text  the plan's lines, seekable */
    public function __construct(private mixed $text, public PlanContents $contents)
    {
    }

    /** Of a plan that is not stored. */
    public static function fromPlan(Plan $plan): self
    {
        $text = fopen('php://temp', 'w+b');
        if ($text === false) {
            throw new \RuntimeException('There is no room for a temporary file.');
        }
        $lines = PlanContents::write($plan);
        foreach ($lines as $chunk) {
            fwrite($text, $chunk);
        }

        return new self($text, $lines->getReturn());
    }

    /** @return list<PlanItem> what lies right inside a directory and is none itself, by name */
    public function files(string $directory, PlanFilter $filter): array
    {
        $within = $this->contents->directories[$directory] ?? null;
        if ($within === null || $within->matching($filter) === 0) {
            return [];
        }
        $files = [];
        fseek($this->text, $within->at);
        for ($at = $within->at; $at < $within->ends;) {
            $line = $this->line($at);
            $at += strlen($line);
            $path = self::path($line);
            $inner = strpos($path, '/', $directory === '' ? 0 : strlen($directory) + 1);
            if ($inner !== false) {
                // In a directory further down, whose lines are passed over.
                $at = $this->contents->directories[substr($path, 0, $inner)]->ends;
                fseek($this->text, $at);
            } elseif (
                ! isset($this->contents->directories[$path])
                && $filter->takesLine($line)
                && $filter->takesPath($path)
            ) {
                $files[] = PlanItem::fromFields(JsonFields::fromJson($line));
            }
        }

        return $files;
    }

    /**
     * @param  int  $from  so many are passed over
     * @param  int  $most  as many are given back
     * @return array{list<PlanItem>, int} files anywhere in it, by path, and how many there are
     */
    public function search(PlanFilter $filter, int $from, int $most): array
    {
        $found = [];
        $count = 0;
        $ends = $this->contents->directories['']->ends;
        rewind($this->text);
        for ($at = 0; $at < $ends; $at += strlen($line)) {
            $line = $this->line($at);
            if (! $filter->takesLine($line)) {
                continue;
            }
            $path = self::path($line);
            if (! isset($this->contents->directories[$path]) && $filter->takesPath($path)) {
                if ($count >= $from && $count < $from + $most) {
                    $found[] = PlanItem::fromFields(JsonFields::fromJson($line));
                }
                $count++;
            }
        }

        return [$found, $count];
    }

    /** @throws \UnexpectedValueException when the text is shorter than its table of contents says */
    private function line(int $at): string
    {
        $line = fgets($this->text);

        return $line !== false && str_ends_with($line, "\n")
            ? $line
            : throw new \UnexpectedValueException("The plan's text ends at byte $at.");
    }

    /** The path stands first in each line; names with signs that JSON writes otherwise are understood as a whole. */
    private static function path(string $line): string
    {
        return preg_match('/\A\{"path":"([^"\\\\]*)"/', $line, $match) === 1
            ? $match[1]
            : JsonFields::fromJson($line)->text('path');
    }
}
