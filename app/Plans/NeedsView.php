<?php

declare(strict_types=1);

namespace App\Plans;

use App\Models\Site;
use App\Text\Amount;
use Carbon\CarbonImmutable;
use Cellarium\Core\Package\Type\Needs;

/** Requirements of a package, beside what is known of the site it goes to. */
final readonly class NeedsView
{
    /**
     * @param  string  $needs  "PHP 8.1 or newer, with mbstring"
     * @param  string  $known  what the site has, or when it is asked
     * @param  bool  $lacks  whether the site has not all of it, as it last said
     */
    private function __construct(public string $needs, public string $known, public bool $lacks)
    {
    }

    /** Null where it needs nothing. */
    public static function forSite(Site $site, Needs $needs): ?self
    {
        if ($needs->isNothing()) {
            return null;
        }
        $words = array_filter([
            $needs->inWords(),
            $needs->bytes === null ? '' : Amount::bytes($needs->bytes).' beside its own files',
        ]);
        $said = $site->php;
        $lacking = $said === null ? null : $needs->lacking($said['version'], $said['extensions']);

        return new self(
            implode('; ', $words),
            match (true) {
                ! $needs->areOfPhp() => '',
                $said === null => 'The site is asked before anything is replaced.',
                $lacking !== null => ucfirst($lacking).', as it said '.self::ago($said['asked_at'])
                    .'. It is asked once more before anything is replaced.',
                default => "The site runs PHP {$said['version']} with that, as it said "
                    .self::ago($said['asked_at']).'.',
            },
            $lacking !== null,
        );
    }

    private static function ago(string $moment): string
    {
        return CarbonImmutable::parse($moment)->diffForHumans();
    }
}
