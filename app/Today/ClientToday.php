<?php

declare(strict_types=1);

namespace App\Today;

use App\Models\BackupState;
use App\Models\ClientRequest;
use App\Models\Deployment;
use App\Models\Person;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use App\Models\Sheet;
use App\Models\Site;
use Illuminate\Support\Collection;

/** The first page of somebody of a client: their sites, what they asked, and what was done lately. */
final readonly class ClientToday
{
    private const REQUESTS = 20;

    private const ENTRIES = 12;

    private const SHEETS = 6;

    /**
     * @param  Collection<int, Site>  $sites
     * @param  Collection<int, ClientRequest>  $requests  those that wait first
     * @param  Collection<int, RecordEntry>  $entries
     * @param  Collection<int, Sheet>  $sheets  newest first
     */
    private function __construct(
        public Person $person,
        public Collection $sites,
        public Collection $requests,
        public Collection $entries,
        public Collection $sheets,
    ) {
    }

    public static function forPerson(Person $person): self
    {
        return new self(
            $person->load('client'),
            Site::with(Deployment::titled('lastDeployment.'))
                ->withCount(['backups' => static fn ($backups) => $backups->where('state', BackupState::Verified)])
                ->orderBy('domain')
                ->get(),
            ClientRequest::with('person', 'site', 'answeredBy')
                ->orderByRaw('answered_at IS NOT NULL')
                ->latest('id')
                ->limit(self::REQUESTS)
                ->get(),
            RecordEntry::with('person')
                ->whereNotIn('action', [RecordKind::SignedIn, RecordKind::SignedOut])
                ->latest('id')
                ->limit(self::ENTRIES)
                ->get(),
            Sheet::listed()->with('site')->latest('id')->limit(self::SHEETS)->get(),
        );
    }

    /** What visitors see of a site, in a few words. */
    public function live(Site $site): string
    {
        return match (true) {
            $site->placeholder === true => 'the host’s placeholder page',
            $site->lastDeployment === null => 'a site from before, not deployed from here',
            default => $site->lastDeployment->title(),
        };
    }

    /** Whether its pages were proven and when. */
    public function proven(Site $site): ProofLine
    {
        return match (true) {
            $site->placeholder === true => new ProofLine('plain', 'nothing deployed yet'),
            $site->live_proven_at === null => new ProofLine('soon', 'not proven from here'),
            default => new ProofLine(
                'proven',
                'proven '.$site->live_proven_at->shown('j M Y H:i').($site->live_sampled ? ', by a sample' : ''),
            ),
        };
    }

    /** How old the last backup is. */
    public function backup(Site $site): ProofLine
    {
        $last = $site->last_backup_at;
        $late = $site->backup_promised_at?->isPast() === true;

        return match (true) {
            $last === null => new ProofLine('soon', 'none yet'),
            $late => new ProofLine('soon', $last->shown('j M Y H:i').', the next one is overdue'),
            default => new ProofLine('proven', $last->shown('j M Y H:i')),
        };
    }

    public function waitingWords(): string
    {
        $waiting = $this->requests->whereNull('answered_at')->count();

        return match ($waiting) {
            0 => 'nothing waits',
            1 => '1 waits for an answer',
            default => "$waiting wait for an answer",
        };
    }
}
