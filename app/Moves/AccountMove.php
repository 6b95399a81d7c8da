<?php

declare(strict_types=1);

namespace App\Moves;

use App\Models\Account;
use App\Models\Backup;
use App\Models\BackupState;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use App\Models\Site;
use Cellarium\Core\Move\DirectoryMap;
use Cellarium\Core\Move\MoveCheck;
use Cellarium\Core\Path\RemotePath;

/** The contents of an account and their places in another account: nothing is made yet, no server asked. */
final readonly class AccountMove
{
    /** @var list<SiteMove> */
    public array $sites;

    /** @var list<UserMove> */
    public array $users;

    public DirectoryMap $map;

    /** @param  array<int, string>  $directories  where sites are to begin, by their number; the rest is proposed */
    public function __construct(public Account $from, public Account $to, array $directories = [])
    {
        $backups = self::backups($from);
        $pairs = [];
        foreach ($from->sites as $site) {
            $site->setRelation('account', $from);
            $begins = $site->applicationRoot();
            $wanted = RemotePath::tryFromString($directories[$site->id] ?? '') ?? $this->proposed($begins);
            $pairs[$site->id] = [$begins, $wanted];
        }
        $check = new MoveCheck(
            array_combine($from->sites->pluck('domain')->all(), array_values($pairs)),
            $to->places(),
        );
        $map = $this->map = new DirectoryMap(array_values($pairs));
        $this->sites = array_values($from->sites->map(fn (Site $site): SiteMove => new SiteMove(
            $site,
            $pairs[$site->id][1],
            $map,
            $backups[$site->id] ?? [],
            $check->objection($site->domain),
        ))->all());
        $this->users = array_values(FtpUser::where('account_id', $from->id)
            ->where('state', FtpUserState::Open)
            ->orderBy('login')
            ->get()
            ->map(fn (FtpUser $user): UserMove => new UserMove(
                $user->setRelation('account', $from),
                $to,
                $map->of($user->path()),
                $check,
            ))->all());
    }

    /** The same path below where the other login begins. */
    private function proposed(RemotePath $begins): RemotePath
    {
        $start = RemotePath::fromString($this->to->start_directory ?? '/');

        return $start->join(RemotePath::root()->toward($begins) ?? throw new \LogicException('The top has no sites.'));
    }

    /** @return array<int, array<string, Backup>> the newest of each directory, by site and by where it begins */
    private static function backups(Account $account): array
    {
        $newest = [];
        $found = Backup::whereIn('site_id', $account->sites->pluck('id'))
            ->where('state', BackupState::Verified)
            ->whereIn('id', Backup::selectRaw('MAX(id)')
                ->whereIn('site_id', $account->sites->pluck('id'))
                ->where('state', BackupState::Verified)
                ->groupBy('site_id', 'root'))
            ->get();
        foreach ($found as $backup) {
            $newest[$backup->site_id][(string) $backup->root] = $backup;
        }

        return $newest;
    }
}
