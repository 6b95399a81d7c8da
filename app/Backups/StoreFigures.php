<?php

declare(strict_types=1);

namespace App\Backups;

use App\Models\Alarm;
use App\Models\DamagedContent;
use App\Models\OwnBackup;
use App\Models\StoreDay;
use App\Models\StoreRound;
use App\Models\StoreSweep;
use App\Text\Amount;
use Carbon\CarbonImmutable;
use Cellarium\Core\Storage\ContentSweep;
use Cellarium\Core\Storage\StoreSettings;
use Illuminate\Support\Collection;

/** Figures of the store: its size, its growth, and the day it will be full at that pace. */
final readonly class StoreFigures
{
    /** Days over which growth is looked at. */
    private const DAYS = 30;

    public ?StoreDay $today;

    /** Bytes a day; null before there are two days to compare. */
    public ?int $growth;

    public ?CarbonImmutable $fullOn;

    public ?StoreRound $round;

    public ?StoreRound $lastRound;

    /** @var Collection<int, DamagedContent> */
    public Collection $damaged;

    /** @var Collection<int, Alarm> */
    public Collection $alarms;

    /** Cellarium's own newest backup, where it has one. */
    public ?OwnBackup $ownNewest;

    /** The last of them that was brought back as a rehearsal. */
    public ?OwnBackup $ownRehearsed;

    /** What lies aside and goes for good within a week; null where nothing does, or that was not counted yet. */
    public ?int $asideFiles;

    public int $asideBytes;

    public function __construct()
    {
        $days = StoreDay::where('day', '>=', now()->subDays(self::DAYS))->orderBy('day')->get();
        $this->today = $days->last();
        $first = $days->first();
        $span = $first === null || $this->today === null ? 0 : (int) $first->day->diffInDays($this->today->day);
        $this->growth = $span === 0 ? null : intdiv($this->today->bytes - $first->bytes, $span);
        $room = $this->today?->room;
        $left = $room === null || $this->growth === null || $this->growth <= 0 ? null : intdiv($room, $this->growth);
        $this->fullOn = $left === null || $left > 36500 ? null : CarbonImmutable::now()->addDays($left);
        $this->round = StoreRound::whereNull('ended_at')->latest('id')->first();
        $this->lastRound = StoreRound::whereNotNull('ended_at')->latest('id')->first();
        $this->damaged = DamagedContent::open()->get();
        $this->ownNewest = OwnBackup::latest('id')->first();
        $this->ownRehearsed = OwnBackup::whereNotNull('rehearsed_at')->latest('rehearsed_at')->first();
        $this->alarms = Alarm::orderBy('id')->get();
        $aside = StoreSweep::where('at', '>', now()->subSeconds(ContentSweep::SECONDS_ASIDE))
            ->toBase()
            ->selectRaw('SUM(aside_files) AS files, SUM(aside_bytes) AS bytes')
            ->first();
        $this->asideFiles = (int) $aside?->files > 0 ? (int) $aside->files : null;
        $this->asideBytes = (int) $aside?->bytes;
    }

    public function grows(): string
    {
        return match (true) {
            $this->growth === null => 'known from the second day on',
            $this->growth < 0 => 'by nothing; it shrinks by '.Amount::bytes(-$this->growth).' a day',
            default => Amount::bytes($this->growth).' a day',
        };
    }

    /** What letting go of what no rule keeps would free; "" before that was counted. */
    public function frees(): string
    {
        return $this->today?->frees_at === null
            ? ''
            : Amount::bytes($this->today->frees).', counted '.$this->today->frees_at->shown('j M H:i');
    }

    /** @param  int  $bytes  that would be freed by the next night */
    public static function noteFrees(int $bytes): void
    {
        StoreDay::orderByDesc('day')->first()?->update(['frees' => $bytes, 'frees_at' => now()]);
    }

    /** Writes down what it holds today. */
    public static function note(StoreSettings $settings): StoreDay
    {
        $objects = $settings->objects();
        $files = 0;
        $bytes = 0;
        foreach ($objects->sizes() as $size) {
            $files++;
            $bytes += $size;
        }

        return StoreDay::updateOrCreate(
            ['day' => now()->toDateString()],
            [
                'files' => $files,
                'bytes' => $bytes,
                'room' => $objects->room(),
                'counted_at' => now(),
            ],
        );
    }
}
