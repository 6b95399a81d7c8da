<?php

declare(strict_types=1);

namespace App\Deployments;

use App\Accounts\AccountCheck;
use App\Failure\Problem;
use App\Hosting\Connections;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\ProofBy;
use App\Models\ProofKind;
use App\Models\RecordKind;
use App\Models\Site;
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

    /** Whether visitors were never asked for what a deployment left, and it is still what is there. */
    public static function isDue(Deployment $deployment): bool
    {
        return $deployment->wasReadBackOnly()
            && ! $deployment->site->trashed()
            && Deployment::where('site_id', $deployment->site_id)
                ->where('state', DeploymentState::Proven)
                ->where('root', $deployment->root)
                ->where('id', '>', $deployment->id)
                ->doesntExist();
    }

    /**
     * Asks for all that visitors were never asked for: a site with mounted directories has a deployment for each.
     *
     * @return string what visitors get, in a sentence
     *
     * @throws Problem where they do not get what was sent; nothing at the host is changed then
     */
    public function prove(Site $site): string
    {
        $due = $site->deployments()
            ->with('package', 'fromBackup.site', 'undoes.package')
            ->where('proof_by', ProofBy::ReadingBack)
            ->get()
            ->each(static fn (Deployment $deployment) => $deployment->setRelation('site', $site))
            ->filter(self::isDue(...));
        $due->isEmpty() && throw new Problem(
            'Visitors were asked for it already, or something else was put there since. Nothing was done.',
        );
        // Where the name leads, and to whose files: the old host may show the very same pages.
        $step = $this->check->proveRoot($site);
        $step->ok || throw new Problem(
            "$step->sentence. Its files are at {$site->account->host} as they were read back; nothing was changed. "
                ."Have the provider answer for $site->domain there, then ask again.",
        );
        $proofs = [];
        $addresses = 0;
        foreach ($due as $deployment) {
            array_push($proofs, ...$this->ask($deployment));
            $addresses += $deployment->addresses;
        }
        $site->update(LiveProofs::shown($site, $proofs, count($proofs) < $addresses));

        return "Visitors get $site->domain as it was sent: ".count($proofs)." of $addresses addresses fetched.";
    }

    /**
     * @return non-empty-list<PageProof> that hold, written down with the deployment
     *
     * @throws Problem
     */
    private function ask(Deployment $deployment): array
    {
        $site = $deployment->site;
        $after = $this->files->after($deployment) ?? throw new Problem(
            'What it left there is no longer written down here. Deploy it again to prove it.',
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
        $deployment->update([
            'proofs' => array_map(static fn (PageProof $proof): array => $proof->toArray(), $proofs),
            'addresses' => $proof->count($plan, $after),
        ]);
        Record::write(
            RecordKind::DeploymentProven,
            "{$deployment->title()}: visitors get it as it was sent, ".count($proofs).' addresses fetched',
            $site,
            ['deployment' => $deployment->id],
        );

        return $proofs;
    }
}
