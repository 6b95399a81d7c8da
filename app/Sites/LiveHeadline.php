<?php

declare(strict_types=1);

namespace App\Sites;

use App\Models\Deployment;
use App\Models\DeploymentKind;
use App\Models\DeploymentState;
use App\Models\FileVersion;
use App\Models\Site;
use Carbon\CarbonImmutable;
use Cellarium\Core\File\FileChangeKind;
use Illuminate\Database\Eloquent\Builder;

/** The live version of a site in one line: the version that was deployed as a whole, and how much was changed since. */
final class LiveHeadline
{
    /** A run that touches more is told by its number of files. */
    public const MOST_PATHS = 500;

    private const MOST_RUNS = 300;

    /** Writes it down with the site. */
    public static function refresh(Site $site): void
    {
        $site->update(['live_says' => self::forSite($site)]);
    }

    /** Null where nothing was deployed from here as a whole. */
    public static function forSite(Site $site): ?string
    {
        [$title, $since, $paths, $more] = self::runs($site);
        foreach (self::byHand($site, $since) as $path) {
            $paths[$path] = true;
        }
        $count = count($paths) + $more;
        $changed = match (true) {
            $count === 0 => '',
            $count === 1 => '1 file changed by hand since',
            default => number_format($count).' files changed by hand since',
        };

        return match (true) {
            $title === null => null,
            $changed === '' => mb_substr($title, 0, 250),
            default => mb_substr($title, 0, 200).", $changed",
        };
    }

    /**
     * @return array{string|null, CarbonImmutable|null, array<string, true>, int} what was put there as a whole, when,
     *     paths from the top of the account that were touched since, and how many more
     */
    private static function runs(Site $site): array
    {
        $runs = $site->deployments()
            ->where('state', DeploymentState::Proven)
            ->with(Deployment::titled())
            ->latest('id')
            ->limit(self::MOST_RUNS)
            ->get()
            ->reverse();
        $now = [null, null, [], 0];
        $before = [];
        foreach ($runs as $run) {
            $run->setRelation('site', $site);
            $before[$run->id] = $now;
            $isWhole = $run->paths === null && $run->directory === null;
            $now = match (true) {
                $run->kind === DeploymentKind::Undo => $before[$run->undoes_id] ?? [null, $run->ended_at, [], 0],
                $run->kind === DeploymentKind::Deploy && ($isWhole || $now[0] === null),
                $run->kind === DeploymentKind::RestoreBackup && $isWhole => [$run->title(), $run->ended_at, [], 0],
                // What goes into a directory of its own leaves what is live what it was.
                $run->kind === DeploymentKind::Deploy => $now,
                default => self::with($now, $run),
            };
        }

        return $now;
    }

    /**
     * @param  array{string|null, CarbonImmutable|null, array<string, true>, int}  $now
     * @return array{string|null, CarbonImmutable|null, array<string, true>, int}
     */
    private static function with(array $now, Deployment $run): array
    {
        $root = trim($run->runPlace()->root->toString(), '/');
        foreach ($run->touched ?? [] as $path) {
            $now[2][ltrim("$root/$path", '/')] = true;
        }
        $run->touched === null && $now[3] += array_sum(array_map(
            static fn (string $change): int => (int) ($run->counts[$change]['files'] ?? 0),
            ['added', 'replaced', 'set_aside'],
        ));

        return $now;
    }

    /** @return list<string> paths from the top of the account, of changes that were not taken back */
    private static function byHand(Site $site, ?CarbonImmutable $since): array
    {
        $root = trim($site->root()->toString(), '/');
        $found = FileVersion::where('account_id', $site->account_id)
            ->where('kind', '!=', FileChangeKind::SetMode)
            ->when($since !== null, static fn (Builder $all) => $all->where('at', '>', $since))
            ->whereHas('change', static fn (Builder $change) => $change->whereNull('undone_at')->whereNull('undoes_id'))
            ->distinct()
            ->limit(10_000)
            ->pluck('path')
            ->map(static fn (string $path): string => trim($path, '/'))
            ->filter(static fn (string $path): bool => $root === '' || str_starts_with($path, "$root/"));

        return array_values($found->all());
    }
}
