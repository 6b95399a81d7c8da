<?php

declare(strict_types=1);

namespace App\Reach;

use App\FtpUsers\UserSheet;
use App\Models\Account;
use App\Models\FtpUser;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Reach\DirectoryTree;
use Cellarium\Core\Reach\Extent;
use Cellarium\Core\Reach\Reach;
use Cellarium\Core\Reach\SeenDirectory;
use Cellarium\Core\Reach\SiteReach;
use Cellarium\Core\Reach\Telling;

/**
 * The directory tree as rows and one lane a login, with a bar over the rows it can touch.
 *
 * A large tree is folded: what sites are served from, where logins land, links, and all that lies above them is shown;
 * the rest of a directory is one row that opens.
 */
final readonly class ReachMap
{
    public const ROW = 38;

    public const MOST_LANES = 40;

    public const COLUMNS = [
        'account',
        'login',
        'state',
        'directory',
        'site',
        'client',
        'extent',
        'part',
        'closes',
        'proven',
        'last used',
    ];

    /** Up to so many directories a tree is shown whole. */
    private const SMALL = 24;

    /** A wide tree opens no further than this at once. */
    private const MOST_ROWS = 400;

    private const WIDE = 84;

    private const NARROW = 22;

    /**
     * @param  list<array{
     *     kind: string,
     *     path: string,
     *     name: string,
     *     depth: int,
     *     serves: list<string>,
     *     looked: bool,
     *     gone: bool,
     *     secrets: int,
     *     scripts: bool,
     *     target: string|null,
     *     leads: int|null,
     *     folded: int,
     *     open: bool,
     * }>  $rows  kind: directory, link or fold; leads: the row a link points to
     * @param  list<array{
     *     url: string,
     *     login: string,
     *     tone: string,
     *     from: int,
     *     to: int,
     *     note: string,
     *     words: string,
     *     warn: bool,
     *     closed: bool,
     * }>  $lanes  from and to are row numbers
     * @param  int  $more  logins that have no lane here
     * @param  list<string>  $open  directories opened on request
     */
    private function __construct(
        public Account $account,
        public array $rows,
        public array $lanes,
        public int $more,
        public int $closed,
        public bool $showsClosed,
        public array $open,
    ) {
    }

    /** @param  mixed  $open  paths of directories to show whole, as they came with the request */
    public static function of(Account $account, mixed $open = [], bool $showsClosed = false): self
    {
        $open = array_slice(
            array_values(
                array_filter(
                    is_array($open) ? $open : [],
                    static fn (mixed $path): bool => is_string($path) && RemotePath::tryFromString($path) !== null,
                ),
            ),
            0,
            60,
        );
        $closed = $account->ftpUsers->filter->hasEnded()->sortByDesc('closed_at')->values();
        $shown = [...$account->ftpUsers->reject->hasEnded()->values(), ...($showsClosed ? $closed : [])];
        $lanes = array_slice($shown, 0, self::MOST_LANES);
        $serves = self::serves($account);
        $landings = array_map(static fn (FtpUser $user): string => $user->directory, $lanes);
        $rows = self::rows(
            $account->seen(),
            $serves,
            [...array_keys($serves), ...$landings],
            $open,
        );
        $places = array_map(static fn (array $row): RemotePath => RemotePath::fromString($row['path']), $rows);
        $drawn = array_map(static fn (FtpUser $user): array => self::lane($user, $rows, $places), $lanes);
        usort(
            $drawn,
            static fn (array $a, array $b): int => [$a['closed'], $a['from'], -$a['to']] <=> [
                $b['closed'],
                $b['from'],
                -$b['to'],
            ],
        );

        return new self(
            $account,
            $rows,
            [
                [
                    'url' => "/accounts/$account->id/edit",
                    'login' => $account->login,
                    'tone' => 'kept',
                    'from' => 0,
                    'to' => count($rows) - 1,
                    'note' => 'full account',
                    'words' => "$account->login, the account itself: everything in it",
                    'warn' => false,
                    'closed' => false,
                ],
                ...$drawn,
            ],
            count($shown) - count($lanes),
            count($closed),
            $showsClosed,
            $open,
        );
    }

    /** The same map, something changed. */
    public function url(?string $toggled = null, ?bool $closed = null): string
    {
        $open = match (true) {
            $toggled === null => $this->open,
            in_array($toggled, $this->open, true) => array_values(array_diff($this->open, [$toggled])),
            default => [...$this->open, $toggled],
        };

        return "/accounts/{$this->account->id}/map?"
            .http_build_query(array_filter(['open' => $open, 'closed' => $closed ?? $this->showsClosed ? '1' : null]));
    }

    /** Pixels from one lane to the next. */
    public function laneWidth(): int
    {
        return max(self::NARROW, min(self::WIDE, intdiv(self::WIDE * 9, count($this->lanes))));
    }

    /** Whether it needs the whole width of the page. */
    public function isWide(): bool
    {
        return count($this->lanes) > 5;
    }

    public function isNarrow(): bool
    {
        return $this->laneWidth() < 62;
    }

    /** @return \Generator<int, list<string>> one line for each site a login reaches */
    public static function lines(Account $account): \Generator
    {
        $names = $account->sites->mapWithKeys(
            static fn ($site): array => [$site->domain => $site->client->name ?? $account->client->name],
        );
        foreach ($account->ftpUsers as $user) {
            $facts = [
                $user->closes_at?->format('Y-m-d H:i') ?? $user->endsWords(),
                $user->reach_proven_at?->format('Y-m-d H:i') ?? '',
                $user->used_at?->format('Y-m-d H:i') ?? '',
            ];
            $before = [$account->host, $user->login, UserSheet::stands($user)[0], $user->directory];
            $touched = Reach::of($user->path(), $account->places())->touched();
            foreach ($touched as $site) {
                yield [
                    ...$before,
                    $site->domain,
                    (string) $names[$site->domain],
                    $site->extent->value,
                    implode(' and ', $site->parts),
                    ...$facts,
                ];
            }
            if ($touched === []) {
                yield [...$before, '', '', 'none', '', ...$facts];
            }
        }
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

    /**
     * @param  array<string, list<string>>  $serves
     * @param  list<string>  $matters  paths that are always shown
     * @param  list<string>  $open
     * @return list<array{
     *     kind: string,
     *     path: string,
     *     name: string,
     *     depth: int,
     *     serves: list<string>,
     *     looked: bool,
     *     gone: bool,
     *     secrets: int,
     *     scripts: bool,
     *     target: string|null,
     *     leads: int|null,
     *     folded: int,
     *     open: bool,
     * }>
     */
    private static function rows(
        DirectoryTree $tree,
        array $serves,
        array $matters,
        array $open,
    ): array {
        $children = [];
        foreach (self::all($tree, $matters) as $path) {
            $path === '/' || $children[RemotePath::fromString($path)->parent()->toString()][] = $path;
        }
        $important = ['/' => true];
        foreach (
            [
                ...$matters,
                ...$open,
                ...array_keys(
                    array_filter($tree->directories, static fn (SeenDirectory $seen): bool => $seen->links !== []),
                ),
            ] as $path
        ) {
            for ($place = RemotePath::fromString((string) $path); $place->depth() > 0; $place = $place->parent()) {
                $important[$place->toString()] = true;
            }
        }
        $whole = count($tree->directories) <= self::SMALL;
        $rows = [];
        self::descend(
            '/',
            $tree,
            $serves,
            $children,
            $important,
            array_flip($open),
            $whole,
            $rows,
        );
        $at = array_flip(
            array_map(static fn (array $row): string => $row['kind'] === 'directory' ? $row['path'] : '', $rows),
        );
        foreach ($rows as $number => $row) {
            $target = $row['target'] === null
                    ? null
                    : RemotePath::fromString($row['path'])->parent()->pointedAt($row['target'])?->toString();
            $rows[$number]['leads'] = $target === null ? null : $at[$target] ?? null;
        }

        return $rows;
    }

    /**
     * @param  array<string, list<string>>  $serves
     * @param  array<string, list<string>>  $children
     * @param  array<string, true>  $important
     * @param  array<string, int>  $open
     * @param  list<array{
     *     kind: string,
     *     path: string,
     *     name: string,
     *     depth: int,
     *     serves: list<string>,
     *     looked: bool,
     *     gone: bool,
     *     secrets: int,
     *     scripts: bool,
     *     target: string|null,
     *     leads: int|null,
     *     folded: int,
     *     open: bool,
     * }>  $rows
     */
    private static function descend(
        string $path,
        DirectoryTree $tree,
        array $serves,
        array $children,
        array $important,
        array $open,
        bool $whole,
        array &$rows,
    ): void {
        $place = RemotePath::fromString($path);
        $seen = $tree->at($place);
        $blank = [
            'serves' => [],
            'looked' => true,
            'gone' => false,
            'secrets' => 0,
            'scripts' => false,
            'target' => null,
            'leads' => null,
            'folded' => 0,
            'open' => false,
        ];
        $rows[] = [
            'kind' => 'directory',
            'path' => $path,
            'name' => $path === '/' ? '/' : $place->name(),
            'depth' => $place->depth(),
            'serves' => $serves[$path] ?? [],
            'looked' => $seen->looked,
            'gone' => $tree->lacks($place),
            'secrets' => count($seen->secrets) + count($seen->backups),
            'scripts' => $seen->scripts > 0 && array_filter(explode('/', $path), Telling::isUploadFolder(...)) !== [],
            'open' => isset($open[$path]),
        ] + $blank;
        foreach ($seen->links as $name => $target) {
            $rows[] = [
                'kind' => 'link',
                'path' => rtrim($path, '/')."/$name",
                'name' => (string) $name,
                'depth' => $place->depth() + 1,
                'target' => $target ?? '',
            ] + $blank;
        }
        $folded = 0;
        foreach ($children[$path] ?? [] as $child) {
            if (($whole || isset($important[$child]) || isset($open[$path])) && count($rows) < self::MOST_ROWS) {
                self::descend(
                    $child,
                    $tree,
                    $serves,
                    $children,
                    $important,
                    $open,
                    $whole,
                    $rows,
                );
            } else {
                $folded++;
            }
        }
        if ($folded > 0) {
            $rows[] = [
                'kind' => 'fold',
                'path' => $path,
                'name' => $folded === 1 ? '1 more directory' : "$folded more directories",
                'depth' => $place->depth() + 1,
                'folded' => $folded,
            ] + $blank;
        }
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
            for ($place = RemotePath::fromString((string) $path); $place->depth() > 0; $place = $place->parent()) {
                $all[$place->toString()] = true;
            }
        }
        $all = array_map(strval(...), array_keys($all));
        usort($all, static fn (string $a, string $b): int => strcmp(strtr($a, '/', "\x01"), strtr($b, '/', "\x01")));

        return $all;
    }

    /**
     * @param  list<array{
     *     kind: string,
     *     path: string,
     *     name: string,
     *     depth: int,
     *     serves: list<string>,
     *     looked: bool,
     *     gone: bool,
     *     secrets: int,
     *     scripts: bool,
     *     target: string|null,
     *     leads: int|null,
     *     folded: int,
     *     open: bool,
     * }>  $rows
     * @param  list<RemotePath>  $places  of the rows
     * @return array{
     *     url: string,
     *     login: string,
     *     tone: string,
     *     from: int,
     *     to: int,
     *     note: string,
     *     words: string,
     *     warn: bool,
     *     closed: bool,
     * }
     */
    private static function lane(FtpUser $user, array $rows, array $places): array
    {
        $directory = $user->path();
        $within = [];
        foreach ($places as $number => $place) {
            // What is folded away in a directory above is not reached by who lands further down.
            if ($directory->contains($place)) {
                $within[] = $number;
            }
        }
        $reach = $user->reach();
        $ended = $user->hasEnded();
        [$word] = UserSheet::stands($user);

        return [
            'url' => "/ftp-users/$user->id",
            'login' => $user->shortLogin(),
            'tone' => match (true) {
                $ended => 'closed',
                $reach->isTooWide()
                    || $user->isOverdue()
                    || $user->proof_failed_at !== null
                    || $user->state === FtpUser::CLOSING_FAILED => 'now',
                ! $user->isProven() => 'soon',
                default => 'proven',
            },
            'from' => min($within === [] ? [0] : $within),
            'to' => max($within === [] ? [0] : $within),
            'note' => self::note($user, $reach),
            'words' => "$user->login, $word: lands in $user->directory, "
                .self::extents($reach)
                .($ended ? '' : "; closes {$user->endsWords()}")
                .($user->read_only ? '; may only read' : ''),
            'warn' => ! $ended && ($reach->isTooWide() || $user->proof_failed_at !== null),
            'closed' => $ended,
        ];
    }

    private static function note(FtpUser $user, Reach $reach): string
    {
        $touched = $reach->touched();

        return match (true) {
            $user->hasEnded() => $user->refusal_proven_at === null
                ? 'closed'
                : 'refused '.$user->refusal_proven_at->format('j M'),
            $user->proof_failed_at !== null => 'does not hold',
            ! $user->isProven() => 'not proven',
            count($reach->clients()) > 1 => count($reach->clients()).' clients',
            $reach->isTooWide() => count($touched).' sites: too wide',
            $touched === [] => 'no site',
            $touched[0]->extent === Extent::Part => 'part of a site',
            default => 'one site',
        };
    }

    private static function extents(Reach $reach): string
    {
        $words = array_map(
            static fn (SiteReach $site): string => $site->extent === Extent::Whole
                ? "all of $site->domain"
                : "part of $site->domain",
            $reach->touched(),
        );

        return $words === [] ? 'reaches no site' : 'reaches '.implode(', ', $words);
    }
}
