<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Backups\Expiry;
use App\Backups\TwoMoments;
use App\Failure\Problem;
use App\Files\FileSecrets;
use App\Models\Backup;
use App\Models\Site;
use App\Sites\OverTime;
use App\Text\When;
use Carbon\CarbonImmutable;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\File\SideBySide;
use Cellarium\Core\File\TextFile;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Storage\ContentStore;
use Illuminate\Contracts\View\View;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** The events of a site, drawn over time, and the same as a table. */
final class OverTimeController
{
    private const USUAL_DAYS = 28;

    private const MOST_BACKUPS = 300;

    private const LARGEST_TEXT = 2_000_000;

    public function show(Request $request, Site $site): View
    {
        $site->load('account.client', 'client');
        $drawing = $this->drawing($request, $site);

        return $request->header('HX-Request') === 'true'
            ? view('parts.over-time', ['drawing' => $drawing])
            : view('over-time', ['site' => $site, 'drawing' => $drawing]);
    }

    /** Two backups of a site beside each other. */
    public function moments(Request $request, Site $site, TwoMoments $moments): View
    {
        $site->load('account.client', 'client');
        $asked = $request->validate([
            'a' => ['nullable', 'integer'],
            'b' => ['nullable', 'integer'],
            'a_at' => ['nullable', 'integer', 'between:0,253402300799'],
            'b_at' => ['nullable', 'integer', 'between:0,253402300799'],
        ]);
        $backups = Expiry::held()
            ->with('site')
            ->where(['site_id' => $site->id, 'root' => $site->application_root])
            ->latest('verified_at')
            ->limit(self::MOST_BACKUPS)
            ->get();
        // What was there at a moment is known from the last backup before it.
        $of = static fn (string $side): ?Backup => isset($asked["{$side}_at"])
            ? $backups->first(
                static fn (Backup $one): bool => $one->verified_at->getTimestamp() <= $asked["{$side}_at"],
            ) ?? $backups->last()
            : $backups->firstWhere('id', (int) ($asked[$side] ?? 0));
        $b = $of('b') ?? $backups->first();
        $a = $of('a') ?? $backups->get(1);
        // Whichever was chosen first, the earlier one is A.
        [$a, $b] = $a !== null && $b !== null && $a->verified_at > $b->verified_at ? [$b, $a] : [$a, $b];

        return view('moments', [
            'site' => $site,
            'backups' => $backups,
            'isByMoments' => isset($asked['a_at']) || isset($asked['b_at']),
            'a' => $a,
            'b' => $b,
            'differences' => $a === null || $b === null ? [] : $moments->between($site, $a, $b),
        ]);
    }

    /** One file at both moments, as texts beside each other. */
    public function text(Request $request, Site $site, BackupShelf $shelf, ContentStore $store): View
    {
        $site->load('account.client', 'client');
        $asked = $request->validate([
            'a' => ['required', 'integer'],
            'b' => ['required', 'integer'],
            'path' => ['required', 'string', 'max:4000'],
        ]);
        $file = $site->applicationRoot()->join(RelativePath::fromString($asked['path']));
        FileSecrets::mayBeSeen($site->account_id, $file);
        $texts = [];
        foreach (['a', 'b'] as $side) {
            $backup = Expiry::held()->where('site_id', $site->id)->findOrFail((int) $asked[$side]);
            $entry = $shelf->entry((string) $backup->name, $asked['path']);
            $isShown = $entry === null || ($entry->isFile() && $entry->size <= self::LARGEST_TEXT);
            $isShown || throw new Problem("{$asked['path']} is too large to be looked at beside itself.");
            $texts[$side] = $entry === null ? '' : $store->text((string) $entry->sha256);
            FileSecrets::mayBeSeen($site->account_id, $file, $texts[$side]);
        }

        return view('moments-text', [
            'site' => $site,
            'path' => $asked['path'],
            'a' => (int) $asked['a'],
            'b' => (int) $asked['b'],
            'texts' => SideBySide::fromTexts(
                TextFile::fromBytes($texts['a'])->edited(),
                TextFile::fromBytes($texts['b'])->edited(),
            ),
        ]);
    }

    public function csv(Request $request, Site $site): Response
    {
        $site->load('account.client', 'client');

        return response($this->drawing($request, $site)->csv(), 200, [
            'Content-Type' => 'text/csv; charset=utf-8',
            'Content-Disposition' => "attachment; filename=\"$site->domain-over-time.csv\"",
        ]);
    }

    private function drawing(Request $request, Site $site): OverTime
    {
        $asked = $request->validate([
            'days' => ['nullable', 'integer', 'in:'.implode(',', array_keys(OverTime::SPANS))],
            'until' => ['nullable', 'date'],
        ]);
        $until = CarbonImmutable::parse($asked['until'] ?? 'now')->min(CarbonImmutable::now());

        return new OverTime($site, (int) ($asked['days'] ?? self::USUAL_DAYS), $until->setTimezone(When::zone()));
    }
}
