<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

use Cellarium\Core\Json\JsonLines;
use Cellarium\Core\Manifest\EntryKind;

/**
 * The table of contents of a plan's text: what lies in each directory, and where. With it a page shows one directory
 * of tens of thousands of files without reading the others.
 *
 * All that lies in a directory stands together in the text, since its items are ordered by the bytes of their paths.
 */
final readonly class PlanContents
{
    /** So much is handed on together, in bytes. */
    private const CHUNK = 1 << 18;

    /**
     * @param  array<string, PlanDirectory>  $directories  by path; "" is the top
     * @param  list<array{string, string}>  $clashes  see Plan::caseClashes()
     * @param  int  $unreadFiles  on the server, that a backup has to fetch
     * @param  int  $unreadBytes  theirs
     */
    private function __construct(
        public array $directories,
        public array $clashes,
        public int $unreadFiles,
        public int $unreadBytes,
    ) {
    }

    /**
     * The plan as text, an item each line in their order, and its table of contents.
     *
     * @return \Generator<int, string, mixed, self> gives whole lines, many at a time
     */
    public static function write(Plan $plan): \Generator
    {
        $directories = ['' => new PlanDirectory('', 0, 0)];
        $at = 0;
        $chunk = '';
        $unread = [0, 0];
        foreach ($plan->items as $item) {
            if ($item->live?->isFile() === true && $item->live->sha256 === null) {
                $unread = [$unread[0] + 1, $unread[1] + $item->live->size];
            }
            $line = JsonLines::line($item->toArray());
            self::enter($directories, $item, $at, $at + strlen($line));
            $at += strlen($line);
            $chunk .= $line;
            if (strlen($chunk) > self::CHUNK) {
                yield $chunk;
                $chunk = '';
            }
        }
        yield $chunk;

        return new self($directories, $plan->caseClashes(), ...$unread);
    }

    /** @param  array<string, PlanDirectory>  $directories  by path, to which it is added */
    private static function enter(array &$directories, PlanItem $item, int $at, int $ends): void
    {
        $path = $item->path->toString();
        $isFile = $item->isFile();
        for ($slash = 0; $slash !== false; $slash = strpos($path, '/', $slash + 1)) {
            $above = substr($path, 0, $slash);
            $directory = $directories[$above] ??= new PlanDirectory($above, $at, $ends);
            $directory->at === $directory->ends && $directory->at = $at;
            $directory->ends = $ends;
            $isFile && $directory->count($item);
        }
        if (($item->target ?? $item->live)?->kind === EntryKind::Directory) {
            $directory = $directories[$path] ??= new PlanDirectory($path, $ends, $ends);
            $directory->change = $item->change;
            $directory->mode = $item->mode;
        }
    }

    /** @return list<PlanDirectory> right inside a directory, ordered by name */
    public function inside(string $directory): array
    {
        $inside = [];
        $depth = $directory === '' ? 0 : substr_count($directory, '/') + 1;
        foreach ($this->directories as $path => $one) {
            $path = (string) $path;
            if (
                $path !== ''
                && substr_count($path, '/') === $depth
                && ($directory === '' || str_starts_with($path, "$directory/"))
            ) {
                $inside[] = $one;
            }
        }
        usort($inside, static fn (PlanDirectory $a, PlanDirectory $b): int => strcmp($a->path, $b->path));

        return $inside;
    }

    /** @return \Generator<int, string> */
    public function lines(): \Generator
    {
        return JsonLines::encode(
            (function (): \Generator {
                yield ['clashes' => $this->clashes, 'unread' => [$this->unreadFiles, $this->unreadBytes]];
                foreach ($this->directories as $directory) {
                    yield $directory->toArray();
                }
            })(),
        );
    }

    public static function fromText(string $text): self
    {
        $directories = [];
        $clashes = [];
        $unread = [0, 0];
        foreach (JsonLines::decode($text) as $fields) {
            if ($fields->has('clashes')) {
                $clashes = $fields->pairs('clashes');
                $unread = $fields->numbers('unread');

                continue;
            }
            $directory = PlanDirectory::fromFields($fields);
            $directories[$directory->path] = $directory;
        }

        return new self($directories, $clashes, $unread[0] ?? 0, $unread[1] ?? 0);
    }
}
