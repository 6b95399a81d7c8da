<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Backups\Expiry;
use App\Backups\RetentionDrawing;
use App\Models\BackupRule;
use App\Models\RecordKind;
use App\Models\Site;
use App\Record\Record;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Psr\Clock\ClockInterface;

/** The rules for backups and what is kept of them: of itself, of its group, or of all. */
final class BackupRuleController
{
    private const NUMBERS = ['hourly', 'daily', 'weekly', 'monthly', 'yearly'];

    public function edit(Request $request, Site $site, Expiry $expiry, ClockInterface $clock): View
    {
        $site->load('account.client', 'client');
        $rule = BackupRule::forSite($site);
        $tried = $request->has('hours') ? $this->asked($request) : [];
        $drawing = new RetentionDrawing($expiry->decisions($site, $rule->replicate()->fill($tried)), $clock->now());

        return $request->header('HX-Request') === 'true'
            ? view('parts.retention', ['drawing' => $drawing])
            : view('backup-rule', ['site' => $site, 'rule' => $rule, 'drawing' => $drawing]);
    }

    public function save(Request $request, Site $site): RedirectResponse
    {
        $site->load('account.client', 'client');
        $for = $request->validate(['for' => ['required', 'in:site,group,all,none']])['for'];
        $group = $site->owner()->group;
        $scope = [
            'site_id' => $for === 'site' || $for === 'none' ? $site->id : null,
            'group' => $for === 'group' && $group !== '' ? $group : null,
        ];
        DB::transaction(function () use ($request, $for, $scope): void {
            $for === 'none'
                ? BackupRule::where('site_id', $scope['site_id'])->delete()
                : BackupRule::updateOrCreate($scope, $this->asked($request));
            $rules = Expiry::rules();
            Site::with('account.client', 'client')
                ->when($scope['site_id'] !== null, static fn ($query) => $query->whereKey($scope['site_id']))
                ->lazyById(200)
                ->each(static fn (Site $one) => BackupRule::among($rules, $one)->promiseTo($one));
        });
        $rule = BackupRule::forSite($site);
        Record::write(
            RecordKind::BackupRuleSaved,
            match ($for) {
                'none' => "$site->domain is backed up by the common rule again",
                'site' => "Backups of $site->domain: {$rule->every()}, kept are {$rule->keeps()}",
                'group' => "Backups of the group $group: {$rule->every()}, kept are {$rule->keeps()}",
                default => 'Backups of all sites without a rule of their own: '
                    ."{$rule->every()}, kept are {$rule->keeps()}",
            },
            $site,
        );

        return redirect("/backups?site=$site->id")->with('done', 'The rule is saved.');
    }

    /** @return array<string, int|string|null> */
    private function asked(Request $request): array
    {
        $numbers = array_fill_keys(self::NUMBERS, ['required', 'integer', 'min:0', 'max:1000']);
        $valid = $request->validate($numbers + [
            'hours' => ['required', 'integer', 'min:1', 'max:8760'],
            'quiet_from' => ['required', 'date_format:H:i'],
            'quiet_until' => ['required', 'date_format:H:i'],
            'zone' => ['required', 'timezone:all'],
            'rehearse_days' => ['nullable', 'integer', 'min:1', 'max:1000'],
        ]);
        foreach (['quiet_from', 'quiet_until'] as $field) {
            [$hour, $minute] = array_map(intval(...), explode(':', $valid[$field]));
            $valid[$field] = $hour * 60 + $minute;
        }

        return $valid + ['rehearse_days' => null];
    }
}
