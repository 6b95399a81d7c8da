<?php

declare(strict_types=1);

namespace App\Models;

use Cellarium\Core\Backup\BackupSchedule;
use Cellarium\Core\Backup\Retention;
use Cellarium\Core\Words\Count;
use DateTimeZone;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Model;

/**
 * A rule for backups: how often they are taken and rehearsed, at which hours, and what is kept; of a site, of a group,
 * of all.
 */
final class BackupRule extends Model
{
    protected $guarded = ['id'];

    protected $casts = [
        'hours' => 'integer',
        'quiet_from' => 'integer',
        'quiet_until' => 'integer',
        'hourly' => 'integer',
        'daily' => 'integer',
        'weekly' => 'integer',
        'monthly' => 'integer',
        'yearly' => 'integer',
        'rehearse_days' => 'integer',
    ];

    protected $attributes = [
        'site_id' => null,
        'group' => null,
        'hours' => 168,
        'quiet_from' => 60,
        'quiet_until' => 300,
        'hourly' => 0,
        'daily' => 14,
        'weekly' => 8,
        'monthly' => 12,
        'yearly' => 3,
        'rehearse_days' => 90,
    ];

    /**
     * The rule that holds for a site, of what was saved: its own, else that of its client's group, else that of all.
     */
    public static function forSite(Site $site): self
    {
        $group = $site->owner()->group;
        $rules = self::query()
            ->where('site_id', $site->id)
            ->orWhere(static fn ($query) => $query->whereNull('site_id')->whereNull('group'))
            ->when($group !== '', static fn ($query) => $query->orWhere('group', $group))
            ->get();

        return self::among($rules, $site);
    }

    /** @param  Collection<int, self>  $rules  all of them, or those that may hold for it */
    public static function among(Collection $rules, Site $site): self
    {
        $group = $site->owner()->group;

        return $rules->firstWhere('site_id', $site->id)
            ?? ($group === '' ? null : $rules->first(static fn (self $rule): bool => $rule->group === $group))
            ?? $rules->first(static fn (self $rule): bool => $rule->isOfAll())
            ?? self::usual();
    }

    /** Where nobody has saved one. */
    public static function usual(): self
    {
        return new self(['zone' => (string) config('app.timezone')]);
    }

    /** Writes down until when the promises of a site are kept. */
    public static function promise(int $site): void
    {
        $site = Site::with('account.client', 'client')->find($site);
        $site === null || self::forSite($site)->promiseTo($site);
    }

    /** The same for one whose rule is at hand. */
    public function promiseTo(Site $site): void
    {
        $rehearsed = $site->rehearsed_at ?? $site->last_backup_at;
        Site::whereKey($site->id)->update([
            // In the zone of the application, as all moments are stored.
            'backup_promised_at' => $this->kept()
                ->brokenAt($site->last_backup_at)
                ?->setTimezone(new DateTimeZone((string) config('app.timezone'))),
            'rehearsal_promised_at' => $this->rehearse_days === null
                ? null
                : $rehearsed?->addDays($this->rehearse_days),
        ]);
    }

    public function isOfAll(): bool
    {
        return $this->site_id === null && $this->group === null;
    }

    public function kept(): BackupSchedule
    {
        return new BackupSchedule(max(1, $this->hours), $this->quiet_from, $this->quiet_until, $this->zone());
    }

    public function retention(): Retention
    {
        return new Retention($this->hourly, $this->daily, $this->weekly, $this->monthly, $this->yearly, $this->zone());
    }

    private function zone(): DateTimeZone
    {
        return new DateTimeZone($this->zone);
    }

    /** "every 7 days", "every 6 hours" */
    public function every(): string
    {
        [$number, $unit] = $this->hours % 24 === 0 ? [intdiv($this->hours, 24), 'day'] : [$this->hours, 'hour'];

        return Count::choose($number, "every $unit", "every $number {$unit}s");
    }

    /** What is kept, in words. */
    public function keeps(): string
    {
        $words = [];
        foreach ($this->retention()->numbers() as $period => $number) {
            $number === 0 || $words[] = "$number ".($period === 'day' ? 'daily' : "{$period}ly");
        }

        return $words === [] ? 'only the newest' : implode(', ', $words);
    }

    /** "01:00 to 05:00" */
    public function quietHours(): string
    {
        return self::clock($this->quiet_from).' to '.self::clock($this->quiet_until);
    }

    public static function clock(int $minutes): string
    {
        return sprintf('%02d:%02d', intdiv($minutes, 60), $minutes % 60);
    }
}
