<?php

declare(strict_types=1);

namespace App\Backups;

use App\Failure\Problem;
use App\Models\Backup;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\FtpUser;
use App\Models\SamePlace;
use App\Models\Site;
use App\Storage\RunFiles;
use Carbon\CarbonImmutable;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Manifest\Drift;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Storage\StoreFailure;

/**
 * Differences between two backups of a site, who brought each change and when; and for what nobody here did, who could
 * sign in then.
 */
final readonly class TwoMoments
{
    /** Deployments between the two whose plans are looked into, the newest. */
    private const MOST_RUNS = 60;

    /** In place of the hash of a file that is not there. */
    private const GONE = 'gone';

    /** Differences that are shown. */
    public const MOST = 500;

    public function __construct(private BackupShelf $shelf, private RunFiles $files)
    {
    }

    /**
     * @param  Backup  $a  the earlier one
     * @return list<MomentDifference> by path
     *
     * @throws Problem|StoreFailure
     */
    public function between(Site $site, Backup $a, Backup $b): array
    {
        $isPair = $a->site_id === $site->id && $b->site_id === $site->id && $a->root === $b->root
            && $a->name !== null && $b->name !== null && $a->verified_at <= $b->verified_at;
        $isPair || throw new Problem('Choose two backups of this site that are stored, the earlier one as A.');
        $before = $this->shelf->manifest((string) $a->name);
        $after = $this->shelf->manifest((string) $b->name);
        $drift = Drift::between($before, $after);
        [$deployed, $unread] = $this->deployed($site, $a, $b);
        $done = $this->byHand($site, $a, $b) + $deployed;
        $users = $this->users($site, $a, $b);
        $nobody = $this->foundByBackups($site, $a, $b);
        $differences = [];
        foreach ($drift->files as $path => $change) {
            $path = (string) $path;
            [$since, $found] = $nobody[$path] ?? [$a->verified_at, $b->verified_at];
            $who = $done[$path] ?? $unread;
            // Done here, and found changed once more afterwards: what there is now came from nobody here.
            $who = isset($nobody[$path]) && $who !== null && $who['at'] <= $since ? null : $who;
            $left = $who['leaves'] ?? null;
            if ($left !== null && $left !== ($after->get($path)->sha256 ?? self::GONE)) {
                // Whoever did it left something else there.
                [$since, $found, $who] = [$who['at'], $found ?? $b->verified_at, null];
            }
            $differences[] = new MomentDifference(
                $path,
                $change['kind'],
                $before->get($path)?->size,
                $after->get($path)?->size,
                $who,
                $who === null ? self::window($since, $found, $change['modified'], $users) : null,
            );
        }
        usort($differences, static fn ($one, $other): int => strcmp($one->path, $other->path));

        return $differences;
    }

    /**
     * What deployments did, the last of each path, and what they left there; and one whose plan is not kept any more,
     * which may have done what nobody else did.
     *
     * @return array{
     *     array<string, array{words: string, at: CarbonImmutable, page: string, kind: string, leaves: string|null}>,
     *     array{words: string, at: CarbonImmutable, page: string, kind: string}|null,
     * } "leaves" is the hash of what was left there, where it is known
     */
    private function deployed(Site $site, Backup $a, Backup $b): array
    {
        $place = SamePlace::ofSite($site, $a->rootPath());
        $runs = Deployment::with([...Deployment::titled(), 'person', 'site'])
            ->whereIn('site_id', $place->sites)
            ->where('state', DeploymentState::Proven)
            ->whereBetween('ended_at', self::moments($a, $b))
            ->latest('ended_at')
            ->limit(self::MOST_RUNS)
            ->get();
        $done = [];
        $unread = null;
        foreach ($runs as $run) {
            if (! $place->isAt($run->site->account_id, $run->runPlace()->root)) {
                continue;
            }
            $who = [
                'words' => $run->title().', '.($run->person?->shortName() ?? 'the console'),
                'at' => $run->ended_at,
                'page' => "/deployments/$run->id",
                'kind' => 'deployed',
            ];
            try {
                $items = $this->files->plan($run)->items;
            } catch (\RuntimeException) {
                $unread = ['words' => "perhaps {$who['words']}, whose plan is not kept", 'kind' => 'not known'] + $who;

                continue;
            }
            foreach ($items as $item) {
                $item->change->touches() && $done[$item->path->toString()] ??= $who + [
                    'leaves' => $item->change === Change::SetAside ? self::GONE : $item->target?->sha256,
                ];
            }
        }

        return [$done, $unread];
    }

    /**
     * @return array<string, array{words: string, at: CarbonImmutable, page: string, kind: string, leaves: string|null}>
     *     the last, by path, and what it left there
     */
    private function byHand(Site $site, Backup $a, Backup $b): array
    {
        $place = SamePlace::ofSite($site, $a->rootPath());
        $done = [];
        $versions = $place->versions()
            ->with('change.person')
            ->whereBetween('at', self::moments($a, $b))
            ->latest('id');
        foreach ($versions->lazy(500) as $version) {
            foreach ([$version->path, $version->after['path'] ?? null] as $path) {
                $below = $path === null ? null : $place->below($version->account_id, $path);
                $below === null || $done[$below] ??= [
                    'words' => $version->change->person?->shortName() ?? 'the console',
                    'at' => $version->at,
                    'page' => "/file-changes/$version->change_id",
                    'kind' => 'by hand',
                    'leaves' => $path === ($version->after['path'] ?? null)
                        ? $version->after['sha256'] ?? null
                        : self::GONE,
                ];
            }
        }

        return $done;
    }

    /** @return array{string, string} a backup is known to the second, what is done to the thousandth */
    private static function moments(Backup $a, Backup $b): array
    {
        return [(string) $a->verified_at?->format('Y-m-d H:i:s'), $b->verified_at?->format('Y-m-d H:i:s').'.999'];
    }

    /** @return array<string, array{CarbonImmutable, CarbonImmutable|null}> between which two looks, by path */
    private function foundByBackups(Site $site, Backup $a, Backup $b): array
    {
        $found = [];
        $backups = Backup::where('site_id', $site->id)
            ->whereBetween('verified_at', [$a->verified_at, $b->verified_at])
            ->whereNotNull('drift')
            ->oldest('verified_at')
            ->get(['id', 'drift', 'verified_at']);
        foreach ($backups as $backup) {
            $since = CarbonImmutable::createFromTimestamp($backup->drift['since']);
            foreach (array_keys($backup->drift['files']) as $path) {
                $found[(string) $path] = [$since, $backup->verified_at];
            }
        }

        return $found;
    }

    /** @return list<FtpUser> that reached the site at some time between the two */
    private function users(Site $site, Backup $a, Backup $b): array
    {
        $users = [];
        foreach ($site->homes() as $home) {
            $there = FtpUser::openWithin($a->verified_at, $b->verified_at)
                ->where('account_id', $home->account->id)
                ->oldest('id')
                ->get(['id', 'login', 'directory', 'created_at', 'closed_at']);
            foreach ($there as $user) {
                $home->wasReachedBy($user, $a->verified_at, $b->verified_at) && $users[] = $user;
            }
        }

        return $users;
    }

    /**
     * Between which moments it came, and who could sign in then.
     *
     * @param  int|null  $modified  by the server's clock
     * @param  list<FtpUser>  $users
     */
    private static function window(
        ?CarbonImmutable $since,
        ?CarbonImmutable $found,
        ?int $modified,
        array $users,
    ): string {
        $at = $modified === null ? null : CarbonImmutable::createFromTimestamp($modified);
        $isBetween = $at !== null && $at >= $since && $at <= $found;
        [$from, $until] = $isBetween ? [$at, $at] : [$since, $found];
        $could = array_filter($users, static fn (FtpUser $user): bool => $user->created_at <= $until
            && ($user->closed_at === null || $user->closed_at >= $from));
        $logins = array_map(static fn (FtpUser $user): string => $user->login, $could);

        return ($isBetween
            ? $at->shown('j M Y H:i')
            : 'between '.$since?->shown('j M Y H:i').' and '.$found?->shown('j M Y H:i'))
                .', while '.implode(', ', ['the account', ...$logins]).' could sign in';
    }
}
