<?php

declare(strict_types=1);

namespace App\Backups;

use App\Models\BackupRule;
use App\Models\Site;
use Cellarium\Core\Backup\RetentionDecision;
use Illuminate\Contracts\Pagination\Paginator;
use Illuminate\Support\Facades\DB;

/** The backups of every site: what it was promised, what was kept of that, how it grows, and what would go. */
final readonly class SitesBackedUp
{
    private const EACH = 100;

    /** What has no backup or breaks a promise, and then what would break one next. */
    private const ORDER = 'COALESCE(placeholder, 0), last_backup_at IS NOT NULL, '
        .'NOT (COALESCE(backup_promised_at < ?, 0) OR COALESCE(rehearsal_promised_at < ?, 0) '
        .'OR rehearsal_trouble IS NOT NULL), '
        ."LEAST(COALESCE(backup_promised_at, '9999-12-31'), COALESCE(rehearsal_promised_at, '9999-12-31')), domain";

    /** Days over which growth is looked at. */
    private const DAYS = 30;

    /** @var Paginator<int, Site> those that break a promise first */
    public Paginator $sites;

    /** @var array<int, BackupRule> by site */
    public array $rules;

    /** @var array<int, int> bytes that a site has grown by, by site; of those that have a backup from before */
    public array $growth;

    /** @var array<int, int> backups that go, by site */
    public array $goes;

    public function __construct(Expiry $expiry)
    {
        $this->sites = Site::with('account.client', 'client')
            ->orderByRaw(self::ORDER, [now(), now()])
            ->simplePaginate(self::EACH)
            ->withPath('/backups/sites');
        $sites = $this->sites->getCollection();
        $rules = Expiry::rules();
        $this->rules = $sites->mapWithKeys(
            static fn (Site $site): array => [$site->id => BackupRule::among($rules, $site)],
        )->all();
        $this->goes = array_map(
            static fn (array $decisions): int => count(array_filter(
                $decisions,
                static fn (RetentionDecision $decision): bool => ! $decision->isKept(),
            )),
            $expiry->decisionsFor($sites, $rules),
        );
        $this->growth = self::growth($sites->modelKeys());
    }

    /**
     * @param  list<int>  $sites
     * @return array<int, int>
     */
    private static function growth(array $sites): array
    {
        $earlier = Expiry::held()
            ->whereIn('site_id', $sites)
            ->whereNull('root')
            ->where('verified_at', '<', now()->subDays(self::DAYS))
            ->groupBy('site_id')
            ->selectRaw('MAX(id)');
        $then = DB::table('backups')->whereIn('id', $earlier)->pluck('bytes', 'site_id');

        return Site::whereIn('id', $then->keys())->pluck('bytes', 'id')
            ->map(static fn (?int $now, int $site): int => (int) $now - (int) $then[$site])
            ->all();
    }
}
