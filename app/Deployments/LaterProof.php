<?php

declare(strict_types=1);

namespace App\Deployments;

use App\Accounts\AccountCheck;
use App\Failure\Problem;
use App\Hosting\Connections;
use App\Models\Deployment;
use App\Models\ProofKind;
use App\Models\RecordKind;
use App\Record\Record;
use App\Storage\RunFiles;
use Cellarium\Core\Deployment\PageProof;

/** Asks as visitors do for what was proven by reading it back, once its host may answer for the name. */
final readonly class LaterProof
{
    public function __construct(
        private RunFiles $files,
        private LiveProofs $proofs,
        private AccountCheck $check,
        private Connections $connections,
    ) {
    }

    /** Whether visitors were never asked for what is there now. */
    public static function isDue(Deployment $deployment): bool
    {
        return $deployment->wasReadBackOnly()
            && $deployment->site->last_deployment_id === $deployment->id
            && ! $deployment->site->trashed();
    }

    /**
     * @return string what visitors get, in a sentence
     *
     * @throws Problem where they do not get what was sent; nothing at the host is changed then
     */
    public function prove(Deployment $deployment): string
    {
        $site = $deployment->site;
        self::isDue($deployment) || throw new Problem(
            'Visitors were asked for it already, or something else was put there since. Nothing was done.',
        );
        $after = $this->files->after($deployment) ?? throw new Problem(
            'What it left there is no longer written down here. Deploy it again to prove it.',
        );
        // Where the name leads, and to whose files: the old host may show the very same pages.
        $step = $this->check->proveRoot($site);
        $step->ok || throw new Problem(
            "$step->sentence. Its files are at {$site->account->host} as they were read back; nothing was changed. "
                ."Have the provider answer for $site->domain there, then ask again.",
        );
        $plan = $this->files->plan($deployment);
        $proof = $this->proofs->of(
            $deployment,
            $this->proofs->hostAddress($site, $this->connections->endpoint($site->account)->address),
        );
        $proofs = $proof->prove($plan, $after);
        $failed = array_values(
            array_filter($proofs, static fn (PageProof $proof): bool => ! $proof->holds()),
        );
        if ($failed !== [] || $proofs === []) {
            $sentence = $proofs === [] ? 'There is no address to ask' : $failed[0]->sentence();
            $site->proofs()->create([
                'kind' => ProofKind::Live,
                'ok' => false,
                'sentence' => $sentence,
                'made_at' => now(),
            ]);
            throw new Problem(
                "$sentence. Its files are at {$site->account->host} as they were read back; nothing was changed. "
                    .'Look at the page in a browser, or deploy again.',
            );
        }
        $addresses = $proof->count($plan, $after);
        $deployment->update([
            'proofs' => array_map(static fn (PageProof $proof): array => $proof->toArray(), $proofs),
            'addresses' => $addresses,
        ]);
        $site->update(LiveProofs::shown($site, $proofs, count($proofs) < $addresses));
        $words = "Visitors get $site->domain as it was sent: ".count($proofs)." of $addresses addresses fetched";
        Record::write(
            RecordKind::DeploymentProven,
            "{$deployment->title()}: $words",
            $site,
            ['deployment' => $deployment->id],
        );

        return "$words.";
    }
}
