<?php

declare(strict_types=1);

namespace App\View;

use App\Models\Account;
use App\Models\FtpUser;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Reach\Extent;

/** The directory tree as rows and one lane a login, with a bar over the rows it can touch. */
final readonly class ReachMap
{
    public const ROW = 38;

    public const LANE = 84;

    private const OPEN_LANES = 6;

    private const CLOSED_LANES = 2;

    /**
     * @param  list<array{path: string, name: string, depth: int, serves: string|null, looked: bool}>  $rows
     * @param  list<array{login: string, tone: string, from: int, to: int, note: string, warn: bool, closed: bool}>  $lanes  from and to are row numbers; -1 when its directory is not among the rows
     * @param  int  $more  logins that have no lane here
     */
    private function __construct(
        public array $rows,
        public array $lanes,
        public int $more,
    ) {
    }

    public static function of(Account $account): self
    {
        $serves = [];
        foreach ($account->sites as $site) {
            $serves[$site->document_root] = $site->domain;
        }
        $tree = ($account->tree ?? []) + ['/' => false] + array_fill_keys(array_keys($serves), false);
        uksort($tree, static fn (string $a, string $b): int => strcmp(strtr($a, '/', "\x01"), strtr($b, '/', "\x01")));
        $rows = [];
        foreach ($tree as $path => $looked) {
            $place = RemotePath::fromString((string) $path);
            $rows[] = ['path' => $place->toString(), 'name' => $place->depth() === 0 ? '/' : $place->name(), 'depth' => $place->depth(), 'serves' => $serves[$path] ?? null, 'looked' => (bool) $looked];
        }
        $open = $account->ftpUsers->reject->hasEnded()->values();
        $closed = $account->ftpUsers->filter->hasEnded()->sortByDesc('closed_at')->take(self::CLOSED_LANES)->values();
        $lanes = [[
            'login' => $account->login, 'tone' => 'kept', 'from' => 0, 'to' => count($rows) - 1, 'note' => 'full account', 'warn' => false, 'closed' => false,
        ]];
        foreach ([...$open->take(self::OPEN_LANES), ...$closed] as $user) {
            $lanes[] = self::lane($user, $rows);
        }

        return new self($rows, $lanes, $account->ftpUsers->count() - count($lanes) + 1);
    }

    /**
     * @param  list<array{path: string, name: string, depth: int, serves: string|null, looked: bool}>  $rows
     * @return array{login: string, tone: string, from: int, to: int, note: string, warn: bool, closed: bool}
     */
    private static function lane(FtpUser $user, array $rows): array
    {
        $within = array_keys(array_filter($rows, static fn (array $row): bool => $user->path()->contains(RemotePath::fromString($row['path']))));
        $reach = $user->reach();
        $touched = count($reach->touched());

        return [
            'login' => $user->shortLogin(),
            'tone' => match (true) {
                $user->hasEnded() => 'closed',
                $reach->isTooWide() || $user->isOverdue() => 'now',
                $user->reach_proven_at === null => 'soon',
                default => 'proven',
            },
            'from' => $within === [] ? -1 : min($within),
            'to' => $within === [] ? -1 : max($within),
            'note' => match (true) {
                $user->hasEnded() => $user->refusal_proven_at === null ? 'closed' : 'refused '.$user->refusal_proven_at->format('j M'),
                $user->reach_proven_at === null => 'not proven',
                $reach->isTooWide() => "$touched sites: too wide",
                $touched === 0 => 'no site',
                $reach->touched()[0]->extent === Extent::Part => 'part of a site',
                default => 'one site',
            },
            'warn' => $reach->isTooWide() && ! $user->hasEnded(),
            'closed' => $user->hasEnded(),
        ];
    }
}
