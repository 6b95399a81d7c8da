<?php

declare(strict_types=1);

namespace App\Reach;

use App\Models\Account;
use App\Models\FtpUser;
use Cellarium\Core\Path\RemotePath;

/** The directory tree of an account as rows and one lane a login, with a bar over the rows it can touch. */
final readonly class ReachMap
{
    public const MOST_LANES = 40;

    /** Directories that can be opened on request at once. */
    private const MOST_OPEN = 60;

    /** With more lanes than this it needs the whole width of the page. */
    private const LANES_BESIDE = 5;

    /**
     * @param  list<MapRow>  $rows
     * @param  list<MapLane>  $lanes  the account's own first
     * @param  int  $more  logins that have no lane here
     * @param  int  $closed  logins that have ended
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
    public static function forAccount(Account $account, mixed $open = [], bool $showsClosed = false): self
    {
        $open = self::paths($open);
        $closed = $account->ftpUsers->filter->hasEnded()->sortByDesc('closed_at')->values();
        $shown = [...$account->ftpUsers->reject->hasEnded()->values(), ...($showsClosed ? $closed : [])];
        $users = array_slice($shown, 0, self::MOST_LANES);
        $rows = MapRows::forAccount(
            $account,
            array_map(static fn (FtpUser $user): string => $user->directory, $users),
            $open,
        );
        $places = array_map(static fn (MapRow $row): RemotePath => $row->place(), $rows);
        $lanes = array_map(static fn (FtpUser $user): MapLane => MapLane::forUser($user, $places), $users);
        $order = static fn (MapLane $lane): array => [$lane->closed, $lane->from, -$lane->to];
        usort($lanes, static fn (MapLane $a, MapLane $b): int => $order($a) <=> $order($b));

        return new self(
            $account,
            $rows,
            [MapLane::ofAccount($account, count($rows)), ...$lanes],
            count($shown) - count($users),
            count($closed),
            $showsClosed,
            $open,
        );
    }

    public function drawing(): ReachMapDrawing
    {
        return new ReachMapDrawing($this->rows, $this->lanes);
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

    /** Whether it needs the whole width of the page. */
    public function isWide(): bool
    {
        return count($this->lanes) > self::LANES_BESIDE;
    }

    /** @return list<string> */
    private static function paths(mixed $given): array
    {
        $paths = array_filter(
            is_array($given) ? $given : [],
            static fn (mixed $path): bool => is_string($path) && RemotePath::tryFromString($path) !== null,
        );

        return array_slice(array_values($paths), 0, self::MOST_OPEN);
    }
}
