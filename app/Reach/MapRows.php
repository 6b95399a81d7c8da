<?php

declare(strict_types=1);

namespace App\Reach;

use App\Models\Account;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Reach\DirectoryTree;
use Cellarium\Core\Reach\NameClue;
use Cellarium\Core\Reach\SeenDirectory;
use Cellarium\Core\Words\Count;

/**
 * The directory tree of an account as rows.
 *
 * A large tree is folded: what sites are served from, where logins land, links, and all that lies above them is shown;
 * the rest of a directory is one row that opens.
 */
final class MapRows
{
    /** Up to so many directories a tree is shown whole. */
    private const SMALL = 24;

    /** A wide tree opens no further than this at once. */
    private const MOST = 400;

    /** @var list<MapRow> */
    private array $rows = [];

    /**
     * @param  array<string, list<string>>  $serves  what visitors see a directory as, by its path
     * @param  array<string, list<string>>  $children  paths right below a path
     * @param  array<string, true>  $important  paths that are always shown
     * @param  array<string, int>  $open  paths that are shown whole
     */
    private function __construct(
        private readonly DirectoryTree $tree,
        private readonly array $serves,
        private readonly array $children,
        private readonly array $important,
        private readonly array $open,
    ) {
    }

    /**
     * @param  list<string>  $previews  directories that logins land in
     * @param  list<string>  $open  directories to show whole
     * @return list<MapRow>
     */
    public static function forAccount(Account $account, array $previews, array $open): array
    {
        $tree = $account->seen();
        $serves = self::serves($account);
        $matters = [...array_map(strval(...), array_keys($serves)), ...$previews];
        $children = [];
        foreach (self::all($tree, $matters) as $path) {
            $path === '/' || $children[RemotePath::fromString($path)->parent()->toString()][] = $path;
        }
        $linked = array_filter($tree->directories, static fn (SeenDirectory $seen): bool => $seen->links !== []);
        $important = ['/' => true];
        foreach ([...$matters, ...$open, ...array_map(strval(...), array_keys($linked))] as $path) {
            $important += self::withAllAbove($path);
        }
        $rows = new self($tree, $serves, $children, $important, array_flip($open));
        $rows->descend('/');

        return $rows->withLeads();
    }

    /** @return array<string, list<string>> what visitors see a directory as, by its path */
    private static function serves(Account $account): array
    {
        $serves = [];
        foreach ($account->sites as $site) {
            $serves[$site->root()->toString()][] = $site->domain;
            foreach ($site->mounts as $mount) {
                $serves[$mount['directory']][] = $site->domain.$mount['path'];
            }
        }

        return $serves;
    }

    private function descend(string $path): void
    {
        $place = RemotePath::fromString($path);
        $seen = $this->tree->at($place);
        $this->rows[] = $this->directory($place, $seen);
        foreach ($seen->links as $name => $target) {
            $this->rows[] = new MapRow(
                RowKind::Link,
                rtrim($path, '/')."/$name",
                (string) $name,
                $place->depth() + 1,
                target: $target ?? '',
            );
        }
        $folded = 0;
        foreach ($this->children[$path] ?? [] as $child) {
            $this->shows($child, $path) ? $this->descend($child) : $folded++;
        }
        if ($folded > 0) {
            $this->rows[] = new MapRow(
                RowKind::Fold,
                $path,
                Count::words($folded, 'more directory', 'more directories'),
                $place->depth() + 1,
            );
        }
    }

    private function directory(RemotePath $place, SeenDirectory $seen): MapRow
    {
        $path = $place->toString();
        $uploads = array_filter(explode('/', $path), NameClue::isUploadFolder(...)) !== [];

        return new MapRow(
            RowKind::Directory,
            $path,
            $path === '/' ? '/' : $place->name(),
            $place->depth(),
            $this->serves[$path] ?? [],
            $seen->looked,
            $this->tree->lacks($place),
            count($seen->secrets) + count($seen->backups),
            $seen->scripts > 0 && $uploads,
        );
    }

    private function shows(string $child, string $parent): bool
    {
        $wanted = count($this->tree->directories) <= self::SMALL
            || isset($this->important[$child])
            || isset($this->open[$parent]);

        return $wanted && count($this->rows) < self::MOST;
    }

    /** @return list<MapRow> with the rows that links point to */
    private function withLeads(): array
    {
        $at = [];
        foreach ($this->rows as $number => $row) {
            $row->isDirectory() && $at[$row->path] = $number;
        }

        return array_map(static function (MapRow $row) use ($at): MapRow {
            $target = $row->target === null ? null : $row->place()->parent()->pointedAt($row->target)?->toString();

            return $target === null ? $row : $row->withLead($at[$target] ?? null);
        }, $this->rows);
    }

    /**
     * @param  list<string>  $matters
     * @return list<string> all paths that are known or matter, with those above them, a directory right above what
     *     lies in it
     */
    private static function all(DirectoryTree $tree, array $matters): array
    {
        $all = array_fill_keys(['/', ...array_keys($tree->directories)], true);
        foreach ($matters as $path) {
            $all += self::withAllAbove($path);
        }
        $all = array_map(strval(...), array_keys($all));
        usort($all, static fn (string $a, string $b): int => strcmp(strtr($a, '/', "\x01"), strtr($b, '/', "\x01")));

        return $all;
    }

    /** @return array<string, true> */
    private static function withAllAbove(string $path): array
    {
        $above = [];
        for ($place = RemotePath::fromString($path); $place->depth() > 0; $place = $place->parent()) {
            $above[$place->toString()] = true;
        }

        return $above;
    }
}
