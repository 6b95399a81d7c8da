<?php

declare(strict_types=1);

namespace App\Plans;

use App\Models\Account;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Text\Amount;
use Cellarium\Core\Deployment\RunStage;
use Cellarium\Core\Pace\ConnectionCount;
use Cellarium\Core\Pace\Expectation;
use Cellarium\Core\Pace\Pace;
use Cellarium\Core\Words\Count;

/** The forecast of a deployment's time, from those before it on the same account. */
final readonly class DurationForecast
{
    /** So many runs tell how it goes. */
    private const RUNS = 8;

    /** With fewer, more connections cannot show what they gain. */
    private const ENOUGH_FILES = 50;

    /** So long a refusal of further connections is remembered. */
    private const DAYS_BELIEVED = 30;

    /**
     * @param  list<array{array<string, array{files: int, bytes: int, seconds: float}>, int}>  $runs  what each stage
     *     moved and took, and over how many connections
     */
    private function __construct(private array $runs, public int $connections)
    {
    }

    public static function for(Deployment $deployment): self
    {
        $runs = Deployment::query()
            ->join('sites', 'sites.id', '=', 'deployments.site_id')
            ->where([
                'sites.account_id' => $deployment->site->account_id,
                'deployments.state' => DeploymentState::Proven,
            ])
            ->whereNotNull('deployments.timings')
            ->latest('deployments.id')
            ->limit(self::RUNS)
            ->get(['deployments.timings', 'deployments.connections']);

        $runs = array_values($runs->map(
            static fn (Deployment $run): array => [$run->timings ?? [], (int) $run->connections],
        )->all());

        return new self($runs, $deployment->connections ?? self::connections($deployment->site->account, $runs));
    }

    /** @param  list<array{array<string, array{files: int, bytes: int, seconds: float}>, int}>  $runs */
    private static function connections(Account $account, array $runs): int
    {
        $paces = [];
        foreach ($runs as [$timings, $connections]) {
            $took = $timings[RunStage::Sending->value] ?? ['files' => 0];
            $pace = $took['files'] < self::ENOUGH_FILES ? null : Pace::measured(
                $took['files'],
                $took['bytes'],
                $took['seconds'],
                $connections,
            );
            $pace === null || $paces[] = [$connections, $pace];
        }
        $isRecent = $account->connections_seen_at?->isAfter(now()->subDays(self::DAYS_BELIEVED)) === true;

        return ConnectionCount::next(
            $paces,
            (int) config('cellarium.connections'),
            min((int) config('cellarium.host_connections'), $isRecent ? (int) $account->connections_most : PHP_INT_MAX),
        );
    }

    public function of(RunStage $stage, int $files, int $bytes): ?Expectation
    {
        // What goes there goes as quickly as what comes from there, where only one of them was measured.
        $alike = [
            RunStage::BackingUp->value => [RunStage::BackingUp, RunStage::Sending],
            RunStage::Sending->value => [RunStage::Sending, RunStage::BackingUp],
        ][$stage->value] ?? [$stage];
        $paces = [];
        foreach ($alike as $one) {
            $paces = $paces === [] ? $this->paces($one) : $paces;
        }

        return Expectation::fromPaces($paces, $files, $bytes, $this->connections);
    }

    /** @return list<Pace> */
    private function paces(RunStage $stage): array
    {
        $paces = [];
        foreach ($this->runs as [$timings, $connections]) {
            $took = $timings[$stage->value] ?? null;
            $pace = $took === null ? null : Pace::measured(
                $took['files'],
                $took['bytes'],
                $took['seconds'],
                $connections,
            );
            $pace === null || $paces[] = $pace;
        }

        return $paces;
    }

    /** "about 38 s (31 s to 52 s, from 6 runs in this account)". */
    public static function words(?Expectation ...$stages): string
    {
        $known = array_values(array_filter($stages));
        if ($known === [] || count($known) < count($stages)) {
            return 'not measured in this account yet';
        }
        $sum = static fn (string $field): float => array_sum(array_column($known, $field));
        $from = max(array_column($known, 'from'));
        $spread = $sum('most') - $sum('least') < 1
            ? ''
            : Amount::seconds($sum('least')).' to '.Amount::seconds($sum('most')).', ';

        return 'about '.Amount::seconds(max(1.0, $sum('seconds')))
            ." ({$spread}from ".Count::choose($from, 'one run', "$from runs").' in this account)';
    }
}
