<?php

declare(strict_types=1);

namespace App\Runs;

use App\Models\Deployment;
use App\Work\RecoversForgotten;
use App\Work\Task;
use App\Work\Tasks;
use Cellarium\Core\Work\Claim;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;

/**
 * Removes the old tree of a proven swap, which could not be removed at its end; tried until it is done.
 *
 * @implements RecoversForgotten<Deployment>
 */
final readonly class TidyDeployment implements RecoversForgotten, Task
{
    private const SECONDS_BETWEEN_TRIES = 120;

    private const AT_ONCE = 20;

    public function __construct(private Runner $runner)
    {
    }

    public static function claim(int $row): ?Claim
    {
        return Runner::claim($row);
    }

    public function carryOut(int $row): ?int
    {
        $deployment = Deployment::with('site.account', 'ftpUser.account')->find($row);
        $deployment?->left_behind_at === null || $this->runner->tidy($deployment);

        return null;
    }

    public function forgotten(\DateTimeInterface $since): Builder
    {
        return Deployment::where('left_behind_at', '<', now()->subSeconds(self::SECONDS_BETWEEN_TRIES))
            ->limit(self::AT_ONCE)
            ->select('id');
    }

    public function takeUp(Model $row): bool
    {
        Deployment::whereKey($row->id)->update(['left_behind_at' => now()]);
        Tasks::order(self::class, $row->id);

        return false;
    }
}
