<?php

declare(strict_types=1);

namespace App\Plans;

use App\Models\Deployment;
use App\Text\Amount;
use Cellarium\Core\Deployment\RunStage;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\Way;
use Cellarium\Core\Plan\WayCost;

/** The ways to replace beside each other: what each takes, what visitors see meanwhile, and which is proposed. */
final readonly class WaysView
{
    /** Addresses that a proof may be content with. */
    public const SAMPLES = [25, 100, 400];

    /** What one more name takes a server, in seconds; measured at four of them. */
    private const SECONDS_A_NAME = 0.0001;

    /** Shorter than that is a moment. */
    private const NOTICEABLE = 0.02;

    /** @var array<string, WayCost> */
    private array $costs;

    public function __construct(
        private Deployment $deployment,
        private DurationForecast $forecast,
        private PlanTotals $totals,
        private int $unreadFiles,
        private int $unreadBytes,
    ) {
        $this->costs = Ways::forDeployment($deployment);
    }

    /**
     * @return list<array{
     *     way: Way,
     *     chosen: bool,
     *     barred: string|null,
     *     takes: string,
     *     rests: string,
     *     mixed: string,
     * }> proposed first
     */
    public function rows(): array
    {
        $rows = [];
        foreach ($this->costs as $cost) {
            [$takes, $rests] = explode(' (', $this->takes($cost)) + [1 => ''];
            $rows[] = [
                'way' => $cost->way,
                'chosen' => $this->deployment->way === $cost->way,
                'barred' => $cost->barred,
                'takes' => $takes,
                'rests' => rtrim($rests, ')'),
                'mixed' => $this->mixed($cost),
            ];
        }

        return $rows;
    }

    /** "Swap the directory is proposed: this login reaches the directory above, and …" */
    public function why(): string
    {
        $proposed = Way::tryFrom((string) ($this->deployment->ways['proposed'] ?? ''));

        return $proposed === null
            ? ''
            : "{$proposed->label()} is proposed: {$this->deployment->ways['why']}.";
    }

    /** How the chosen one goes, for the track. */
    public function chosen(): WayCost
    {
        return $this->costs[$this->deployment->way->value] ?? new WayCost(
            Way::FileByFile,
            $this->totals->files(Change::Add, Change::Replace),
            $this->totals->bytes(Change::Add, Change::Replace),
        );
    }

    /** "5.3 KB in 4 files", "14 MB in one archive of 12 files". */
    public function toSend(): string
    {
        $cost = $this->chosen();

        return Amount::bytes($cost->bytes).match ($cost->way) {
            Way::FileByFile => ' in '.Amount::files($cost->files),
            Way::Swap => ' in '.Amount::files($cost->files).', what is the same included where the server does not '
                .'copy it',
            Way::Unpack => ' in one archive of '.Amount::files($cost->files),
        };
    }

    private function takes(WayCost $cost): string
    {
        if ($this->totals->files(Change::Add, Change::Replace, Change::SetAside) === 0) {
            return 'nothing to do';
        }
        $stages = [
            $this->forecast->of(RunStage::BackingUp, $this->unreadFiles, $this->unreadBytes),
            $this->forecast->of(RunStage::Sending, $cost->filesOverTheWire(), $cost->bytes),
            $cost->way === Way::FileByFile
                ? $this->forecast->of(RunStage::Replacing, $cost->files, 0)
                : null,
            $cost->way === Way::Unpack ? $this->forecast->of(RunStage::Unpacking, $cost->files, 0) : null,
        ];
        $needed = match ($cost->way) {
            Way::FileByFile => array_slice($stages, 0, 3),
            Way::Swap => array_slice($stages, 0, 2),
            Way::Unpack => [$stages[0], $stages[1], $stages[3]],
        };

        return DurationForecast::words(...$needed);
    }

    /** For how long pages of both versions may be seen. */
    private function mixed(WayCost $cost): string
    {
        $changing = $this->totals->files(Change::Replace, Change::SetAside);
        if ($changing === 0) {
            return 'none';
        }
        if ($cost->way !== Way::FileByFile) {
            $seconds = self::SECONDS_A_NAME * $cost->moves;

            return $seconds < self::NOTICEABLE ? 'none' : 'what stays is away for '.self::short($seconds);
        }
        $seconds = $this->forecast->of(RunStage::Replacing, $cost->files, 0)?->seconds;

        return match (true) {
            $changing === 1 => 'none',
            $seconds === null => 'for a moment, of both',
            default => 'about '.Amount::seconds(max(0.1, $seconds)).', of both',
        };
    }

    private static function short(float $seconds): string
    {
        return $seconds < 1 ? round(1000 * $seconds).' ms' : Amount::seconds($seconds);
    }
}
