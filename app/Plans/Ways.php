<?php

declare(strict_types=1);

namespace App\Plans;

use App\Hosting\Connections;
use App\Models\Deployment;
use Cellarium\Core\Deployment\StagedTree;
use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Plan\Room;
use Cellarium\Core\Plan\Way;
use Cellarium\Core\Plan\WayChoice;
use Cellarium\Core\Plan\WayCost;

/** The ways to replace for a plan: the cost of each, what bars it here, and the proposed one. */
final readonly class Ways
{
    /** What a server said against swapping counts for so long. */
    private const DAYS_BELIEVED = 30;

    public function __construct(private Connections $connections)
    {
    }

    /**
     * Sets what the plan's page offers; what a person chose stays chosen as long as it can be gone.
     *
     * @param  bool  $asksHost  whether the host is asked what it offers; else what it said before counts
     */
    public function weigh(Deployment $deployment, Plan $plan, bool $asksHost = true): void
    {
        $before = $asksHost ? [] : array_column($deployment->ways['costs'] ?? [], 'barred', 'way');
        $costs = $this->costs($deployment, $plan, $before);
        $counts = $plan->counts();
        $account = $deployment->site->account;
        $fits = static function (Way $way) use ($costs, $counts, $account): bool {
            $room = Room::fromCost($costs[$way->value], $counts, (int) $account->space_used, $account->space_limit);

            return $room->firstShort() === null;
        };
        $changing = $counts[Change::Replace->value]['files'] + $counts[Change::SetAside->value]['files'];
        $choice = WayChoice::propose(array_values($costs), $changing, $fits);
        $isKept = $deployment->way_chosen === true && $costs[$deployment->way->value]->barred === null;
        $deployment->forceFill([
            'way' => $isKept ? $deployment->way : $choice->way,
            'way_chosen' => $isKept,
            'ways' => [
                'costs' => array_map(static fn (WayCost $cost): array => $cost->toArray(), array_values($costs)),
                'proposed' => $choice->way->value,
                'why' => $choice->why,
            ],
        ]);
    }

    /** @return array<string, WayCost> as they were weighed, by way */
    public static function forDeployment(Deployment $deployment): array
    {
        $costs = [];
        foreach ($deployment->ways['costs'] ?? [] as $fields) {
            $cost = WayCost::fromFields(new JsonFields($fields));
            $costs[$cost->way->value] = $cost;
        }

        return $costs;
    }

    /**
     * @param  array<string, string|null>  $known  what bars a way, by way, where that was found out before
     * @return array<string, WayCost> by way
     */
    private function costs(Deployment $deployment, Plan $plan, array $known): array
    {
        $counts = $plan->counts();
        $tree = StagedTree::fromPlan($plan);
        $laid = count($tree->files);
        $bytes = $tree->bytes();
        $moves = count($tree->moves);
        $swap = array_key_exists(Way::Swap->value, $known)
            ? $known[Way::Swap->value]
            : $this->barsSwap($deployment, $plan, $tree);
        $unpack = match (true) {
            $swap !== null => $swap,
            array_key_exists(Way::Unpack->value, $known) => $known[Way::Unpack->value],
            default => $this->barsUnpack($deployment),
        };

        return [
            Way::Swap->value => new WayCost(Way::Swap, $laid, $bytes, $moves, $swap),
            Way::Unpack->value => new WayCost(Way::Unpack, $laid, $bytes, $moves, $unpack),
            Way::FileByFile->value => new WayCost(
                Way::FileByFile,
                $counts[Change::Add->value]['files'] + $counts[Change::Replace->value]['files'],
                $plan->bytesToSend(),
            ),
        ];
    }

    private function barsSwap(Deployment $deployment, Plan $plan, StagedTree $tree): ?string
    {
        $site = $deployment->site;
        $root = $deployment->runPlace()->root;
        $seen = $deployment->rootAsSignedIn();
        $served = $site->servedAbove($root);
        $isBelieved = $site->swap_barred_at?->isAfter(now()->subDays(self::DAYS_BELIEVED)) === true;

        return match (true) {
            $seen === null, $seen->depth() === 0 => 'this login begins at the document root and does not reach the '
                .'directory above',
            $served !== null => "what lies beside the document root is served to visitors of $served",
            ! $tree->leavesSomething($plan) => 'there is nothing yet that would be replaced',
            $isBelieved => "$site->swap_barred, on {$site->swap_barred_at->shown('j M')}",
            default => null,
        };
    }

    private function barsUnpack(Deployment $deployment): ?string
    {
        try {
            $host = $this->connections->jobs($deployment->site->account);

            return match (true) {
                $host === null => 'no control service of the host is known here',
                ! $host->offersJobs() => 'the host does not offer to unpack',
                default => null,
            };
        } catch (ControlFailure $failure) {
            return $failure->reason->sentence();
        }
    }
}
