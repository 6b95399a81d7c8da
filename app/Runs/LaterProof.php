<?php

declare(strict_types=1);

namespace App\Runs;

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
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** Asks as visitors do for what was proven by reading it back, once its host may answer for the name. */
final readonly class LaterProof
{
    public function __construct(
        private RunFiles $files,
        private LiveProofs $proofs,
        private AccountCheck $check,
        private Connections $connections,
        private OpenAddresses $open,
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
            ->with(Deployment::titled())
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
        foreach ($due as $deployment) {
            $proofs[$deployment->id] = $this->ask($deployment);
        }
        // All or nothing: whoever is killed in between asks once more.
        DB::transaction(static fn () => self::write($site, $due, $proofs));
        foreach ($due as $deployment) {
            $found = $deployment->foundLive();
            $found === null || $this->open->settle($deployment, $found);
        }

        return "Visitors get $site->domain as it was sent: ".count(array_merge(...$proofs)).' of '
            .$due->sum('addresses').' addresses fetched.';
    }

    /**
     * @param  Collection<int, Deployment>  $due
     * @param  array<int, non-empty-list<PageProof>>  $proofs  that hold, by the number of the deployment
     */
    private static function write(Site $site, Collection $due, array $proofs): void
    {
        foreach ($due as $deployment) {
            $shown = array_map(static fn (PageProof $proof): array => $proof->toArray(), $proofs[$deployment->id]);
            $deployment->proofs = $shown;
            $deployment->save();
            Record::write(
                RecordKind::DeploymentProven,
                "{$deployment->title()}: visitors get it as it was sent, ".count($shown).' addresses fetched',
                $site,
                ['deployment' => $deployment->id],
            );
        }
        $all = array_merge(...$proofs);
        $site->update(LiveProofs::shown($site, $all, count($all) < $due->sum('addresses')));
    }

    /**
     * @return non-empty-list<PageProof> that hold; how many addresses there are is set, and not saved yet
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
        $failed = array_values(array_filter($proofs, static fn (PageProof $proof): bool => ! $proof->holds()));
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
        $deployment->addresses = $proof->count($plan, $after);
        $deployment->found_live = $proof->find($plan, $after, null)->toArray();

        return $proofs;
    }
}
