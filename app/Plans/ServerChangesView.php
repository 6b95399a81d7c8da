<?php

declare(strict_types=1);

namespace App\Plans;

use App\Text\Amount;
use Cellarium\Core\Deployment\RunRefusal;
use Cellarium\Core\Plan\LiveChanges;

/** Why a plan was made anew, and what was different on the server. */
final readonly class ServerChangesView
{
    /** So many of each kind are named. */
    private const NAMED = 20;

    /**
     * @param  list<array{string, list<string>}>  $kinds  in words, how many; and paths
     */
    private function __construct(public string $sentence, public array $kinds)
    {
    }

    /**
     * @param  array<string, mixed>|null  $before  what was written down already: why the plan is made anew
     * @return array<string, mixed>|null
     */
    public static function toStore(LiveChanges $changes, ?array $before): ?array
    {
        return $changes->paths() === [] && $before === null
            ? null
            : ['reason' => $before['reason'] ?? RunRefusal::ChangedSincePlanned->value] + array_map(
                static fn (array $paths): array => [count($paths), array_slice($paths, 0, self::NAMED)],
                ['changed' => $changes->changed, 'removed' => $changes->removed, 'added' => $changes->added],
            );
    }

    /** @param  array<string, mixed>|null  $stored */
    public static function fromStored(?array $stored): ?self
    {
        if ($stored === null) {
            return null;
        }
        $words = ['changed' => 'changed', 'removed' => 'removed', 'added' => 'new'];
        $kinds = [];
        foreach ($words as $kind => $word) {
            [$count, $paths] = $stored[$kind] ?? [0, []];
            $count === 0 || $kinds[] = [Amount::files($count)." $word", $paths];
        }

        return new self(
            match (true) {
                $kinds !== [] => 'The server changed after this plan was made. Nothing was touched; this is the plan '
                    .'for what is there now.',
                $stored['reason'] === RunRefusal::Questions->value => 'Reading the files for the backup showed that '
                    .'some were changed on the server since the last deployment. Nothing was touched; say what is to '
                    .'stay.',
                default => 'The plan was made anew. The server is as it was.',
            },
            $kinds,
        );
    }
}
