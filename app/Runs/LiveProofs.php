<?php

declare(strict_types=1);

namespace App\Runs;

use App\Hosting\Connections;
use App\Models\Deployment;
use App\Models\ProofKind;
use App\Models\Site;
use App\Plans\SiteFacts;
use App\Storage\RunFiles;
use App\Storage\RunLimits;
use Cellarium\Core\Deployment\LiveAddresses;
use Cellarium\Core\Deployment\LiveProof;
use Cellarium\Core\Deployment\PageProof;
use Cellarium\Core\Storage\ContentStore;

/** Proofs by what visitors get: where they are asked for, and what is known of a site once they hold. */
final readonly class LiveProofs
{
    public function __construct(
        private Connections $connections,
        private ContentStore $store,
        private SiteFacts $facts,
        private RunFiles $files,
    ) {
    }

    public function addresses(Deployment $deployment): LiveAddresses
    {
        return new LiveAddresses(
            $deployment->site->addresses(),
            $deployment->runPlace(),
            $deployment->site->start_pages,
            $this->facts->mustAnswer($deployment),
            [
                ...$this->files->overruled($deployment),
                ...$deployment->runPlace()->allInRun($this->facts->exposed($deployment, $deployment->place())),
            ],
        );
    }

    /** @param  string|null  $hostAddress  see hostAddress() */
    public function of(Deployment $deployment, ?string $hostAddress): LiveProof
    {
        return new LiveProof(
            $this->connections->web(),
            $this->addresses($deployment),
            RunLimits::proofShare(),
            $hostAddress,
            $deployment->proof_stops,
            $this->store,
            $deployment->proof_most,
        );
    }

    /**
     * Where the site is asked for while its name leads elsewhere; null for where its name leads.
     *
     * @param  string|null  $address  the IP address of its host
     */
    public function hostAddress(Site $site, ?string $address): ?string
    {
        $named = (string) parse_url($site->base_url, PHP_URL_HOST);

        return $site->leads_elsewhere && ! in_array($address, $this->connections->names()->addresses($named), true)
            ? $address
            : null;
    }

    /**
     * Writes down with the site what its addresses have shown.
     *
     * @param  list<PageProof>  $proofs  that hold
     * @return array<string, mixed> columns of the site
     */
    public static function shown(Site $site, array $proofs, bool $isSample): array
    {
        foreach ($proofs as $proof) {
            $site
                ->proofs()
                ->create([
                    'kind' => ProofKind::Live,
                    'ok' => true,
                    'sentence' => $proof->sentence(),
                    'made_at' => now(),
                ]);
        }

        $direct = array_filter($proofs, static fn (PageProof $proof): bool => $proof->at !== null);

        return [
            'leads_elsewhere' => $direct !== [],
            'live_proven_at' => now(),
            'live_sampled' => $isSample,
            'root_proven_at' => $site->root_proven_at ?? now(),
        ];
    }
}
