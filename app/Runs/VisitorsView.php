<?php

declare(strict_types=1);

namespace App\Runs;

use App\Models\Deployment;
use App\Text\Amount;
use Cellarium\Core\Deployment\HeldCopy;
use Cellarium\Core\Deployment\LiveFindings;
use Cellarium\Core\Deployment\RefusalProof;
use Cellarium\Core\Deployment\UnansweredReference;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Plan\Change;

/** Findings of a run beside the bytes that were sent, in sentences. */
final readonly class VisitorsView
{
    /** So many of a kind are named one by one. */
    public const NAMED = 12;

    /** Seconds that nobody notices. */
    private const AT_ONCE = 60;

    private function __construct(private Deployment $deployment, private LiveFindings $found)
    {
    }

    /** Null where they were not asked. */
    public static function forDeployment(Deployment $deployment): ?self
    {
        $found = $deployment->foundLive();

        return $found === null ? null : new self($deployment, $found);
    }

    /** @return list<string> what should not be public, and is */
    public function public(): array
    {
        return self::sentences($this->found->public());
    }

    /** @return list<string> what was sent, is not meant for visitors, and was asked for */
    public function refused(): array
    {
        return self::sentences(array_values(array_filter(
            $this->found->refusals,
            static fn (RefusalProof $one): bool => ! $one->isPublic,
        )));
    }

    /** @return list<string> */
    public function unanswered(): array
    {
        return self::sentences($this->found->unanswered);
    }

    /** How many further addresses nobody asked for; "" where all were. */
    public function notAsked(): string
    {
        return $this->found->notAsked === 0 ? '' : number_format($this->found->notAsked).' further addresses that the '
            .'pages ask for were not asked.';
    }

    /** @return array<string, string> address of the directory on the server, by its path; "" is the top */
    public function listed(): array
    {
        $root = $this->deployment->runPlace()->root;
        $listed = [];
        foreach ($this->found->listed as $directory) {
            $at = $directory === '' ? $root : $root->join(RelativePath::fromString($directory));
            $listed[$directory] = $at->toString();
        }

        return $listed;
    }

    /** From when on those see it who were there before; null where nothing was replaced, or that was not asked. */
    public function since(): ?string
    {
        $replaced = (int) ($this->deployment->counts[Change::Replace->value]['files'] ?? 0);
        if (! $this->found->asksHeld || $replaced === 0) {
            return null;
        }
        $longest = $this->found->held[0] ?? null;
        if (($longest->seconds ?? 0) < self::AT_ONCE || $this->deployment->ended_at === null) {
            return 'Visitors who were there before see the new version at once; their browsers hold no old one.';
        }
        $others = count($this->found->held) - 1;

        return "Visitors who were there before see the new version of $longest->path from "
            .$this->deployment->ended_at->addSeconds($longest->seconds)->shown('j M Y H:i').' on at the latest: '
            .'the server let their browsers hold the old one for '.Amount::seconds($longest->seconds)
            .($others === 0 ? '' : ', and '.Amount::files($others).' more for no longer')
            .(self::isLong($longest) ? '. A file that is held for so long gets a new name when it changes.' : '.');
    }

    private static function isLong(HeldCopy $held): bool
    {
        return $held->seconds > 7 * 86_400;
    }

    /**
     * @param  list<RefusalProof|UnansweredReference>  $all
     * @return list<string>
     */
    private static function sentences(array $all): array
    {
        return array_map(static fn (RefusalProof|UnansweredReference $one): string => $one->sentence().'.', $all);
    }
}
