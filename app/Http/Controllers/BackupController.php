<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Backups\BackupFolder;
use App\Backups\BackUpOverdue;
use App\Backups\BackupZip;
use App\Backups\Expiry;
use App\Backups\Rehearsals;
use App\Backups\RehearseBackup;
use App\Backups\RestoreDatabase;
use App\Backups\RetentionDrawing;
use App\Backups\SitesBackedUp;
use App\Backups\StoreFigures;
use App\Backups\TakeBackup;
use App\Errands\Errands;
use App\Failure\Problem;
use App\Models\Backup;
use App\Models\BackupReason;
use App\Models\BackupRule;
use App\Models\BackupState;
use App\Models\Person;
use App\Models\RecordKind;
use App\Models\Site;
use App\Plans\MakePlan;
use App\Plans\Plans;
use App\Record\Record;
use App\Work\Tasks;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Backup\RetentionDecision;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\StreamedResponse;

final class BackupController
{
    private const EACH = 100;

    public function index(Request $request, Expiry $expiry, ClockInterface $clock): View
    {
        $site =
            $request->integer('site') > 0 ? Site::with('account.client')->findOrFail($request->integer('site')) : null;
        $backups = Backup::with('site.account.client', 'site.client', 'person')
            ->when($site !== null, static fn ($query) => $query->where('site_id', $site->id))
            ->orderByDesc('id')
            ->simplePaginate(self::EACH)
            ->withPath('/backups')
            ->withQueryString();
        $decisions = $site === null ? [] : $expiry->decisions($site);
        $data = [
            'backups' => $backups,
            'site' => $site,
            'taking' => $backups->contains('state', BackupState::Taking),
            'rule' => $site === null ? null : BackupRule::forSite($site),
            'drawing' => $decisions === [] ? null : new RetentionDrawing($decisions, $clock->now()),
            'fates' => array_column(array_map(
                static fn (RetentionDecision $decision): array => [$decision->backup->id, RetentionDrawing::why(
                    $decision,
                )],
                $decisions,
            ), 1, 0),
        ];

        return view($request->header('HX-Request') === 'true' ? 'parts.backups' : 'backups', $data);
    }

    public function take(Request $request, Site $site): RedirectResponse
    {
        $person = $request->user();
        $running = Backup::where(['site_id' => $site->id, 'state' => BackupState::Taking])->first();
        $backup = $running
            ?? Backup::create([
                'site_id' => $site->id,
                'person_id' => $person instanceof Person ? $person->id : null,
                'reason' => BackupReason::OnDemand,
                'state' => BackupState::Taking,
            ]);
        if ($running === null) {
            Tasks::order(TakeBackup::class, $backup->id);
        }

        return redirect("/backups?site=$site->id");
    }

    public function sites(Expiry $expiry): View
    {
        return view('backup-sites', ['view' => new SitesBackedUp($expiry), 'store' => new StoreFigures]);
    }

    public function pin(Request $request, Backup $backup): RedirectResponse
    {
        $because = $request->validate(['because' => ['required', 'string', 'max:200']])['because'];
        $person = $request->user();
        $backup->load('site.account');
        $backup->update([
            'pinned_because' => $because,
            'pinned_by_id' => $person instanceof Person ? $person->id : null,
            'pinned_at' => now(),
        ]);
        Record::write(
            RecordKind::BackupPinned,
            "Backup $backup->id of {$backup->site->domain} is kept whatever the rule says: $because",
            $backup->site,
            ['backup' => $backup->id],
        );

        return redirect("/backups?site=$backup->site_id");
    }

    public function unpin(Backup $backup): RedirectResponse
    {
        $backup->load('site.account');
        $backup->update(['pinned_because' => null, 'pinned_by_id' => null, 'pinned_at' => null]);
        Record::write(
            RecordKind::BackupUnpinned,
            "Backup $backup->id of {$backup->site->domain} is kept as the rule says again",
            $backup->site,
            ['backup' => $backup->id],
        );

        return redirect("/backups?site=$backup->site_id");
    }

    public function rehearse(Backup $backup): RedirectResponse
    {
        Tasks::order(RehearseBackup::class, $backup->id);

        return redirect("/backups?site=$backup->site_id")->with(
            'done',
            "Backup $backup->id is being rehearsed: unpacked where nobody sees it, compared, its pages fetched.",
        );
    }

    /** The newest of a site. */
    public function rehearseSite(Site $site): RedirectResponse
    {
        $backup = Rehearsals::newest($site) ?? throw new Problem(
            "There is no backup of $site->domain to rehearse. Take one first.",
        );

        return $this->rehearse($backup);
    }

    public function overdue(Request $request, BackUpOverdue $overdue): RedirectResponse
    {
        $person = $request->user();
        $begun = $overdue->begin($person instanceof Person ? $person : null);

        return redirect('/backups')->with(
            'done',
            $begun === 1
                ? '1 backup begun.'
                : "$begun backups begun; they are taken one after the other, and stand here as they are done.",
        );
    }

    public function cancel(Backup $backup): RedirectResponse
    {
        Backup::where(['id' => $backup->id, 'state' => BackupState::Taking])
            ->whereNull('cancelled_at')
            ->update(['cancelled_at' => now()]);

        return redirect("/backups?site=$backup->site_id");
    }

    /** Much less is listed than was known, and somebody has looked: it is right, and the backup is taken. */
    public function accept(Backup $backup): RedirectResponse
    {
        $backup->load('site.account');
        $accepted = [
            'state' => BackupState::Taking,
            'trouble' => null,
            'collapse_accepted' => true,
            'started_at' => null,
        ];
        if (Backup::where(['id' => $backup->id, 'state' => BackupState::Question])->update($accepted) === 1) {
            Record::write(
                RecordKind::ListingAccepted,
                "{$backup->site->domain}: that much less is on the server than before is right",
                $backup->site,
                ['backup' => $backup->id],
            );
            Tasks::order(TakeBackup::class, $backup->id);
        }

        return redirect("/backups?site=$backup->site_id");
    }

    /** Read whole before the first byte is sent, so that what is saved is whole. */
    public function download(Request $request, Backup $backup, BackupZip $zip): StreamedResponse
    {
        $backup->load('site.account');
        $response = $zip->response(
            $backup,
            self::paths($request),
            (string) $request->header('Range', ''),
            (string) $request->header('If-Range', ''),
        );
        // One that goes on is the same download.
        $response->getStatusCode() === 200 && Record::write(
            RecordKind::BackupDownloaded,
            "Backup number $backup->id of {$backup->site->domain} was downloaded",
            $backup->site,
            ['backup' => $backup->id],
        );

        return $response;
    }

    /** What it holds, a folder at a time. */
    public function show(Request $request, Backup $backup, BackupShelf $shelf): View
    {
        $backup->load('site.account.client', 'site.client', 'person');
        $backup->state === BackupState::Verified || throw new Problem(
            "Backup $backup->id was not finished or is not stored any more, so there is nothing to look at.",
        );

        return view('backup', ['view' => new BackupFolder(
            $backup,
            $shelf->manifest((string) $backup->name),
            trim((string) $request->query('in'), '/'),
        )]);
    }

    public function restore(Request $request, Backup $backup, Plans $plans): RedirectResponse
    {
        $backup->load('site.account.client', 'site.account.sites', 'site.client');
        $to = $request->validate(['to' => ['nullable', 'integer']])['to'] ?? null;
        $person = $request->user();
        $deployment = $plans->orderRestoreBackup(
            $backup,
            $person instanceof Person ? $person : null,
            self::paths($request),
            $to === null ? null : Site::with('account.client', 'account.sites', 'client')->findOrFail((int) $to),
        );
        Tasks::order(MakePlan::class, $deployment->id);

        return redirect("/deployments/$deployment->id");
    }

    /** A database by itself; what it holds now is written out and kept first. */
    public function restoreDatabase(Request $request, Backup $backup): RedirectResponse
    {
        $name = $request->validate(['database' => ['required', 'string', 'max:64']])['database'];

        return Errands::answer(Errands::start(
            RestoreDatabase::class,
            "/backups/$backup->id",
            $backup->site,
            ['backup' => $backup->id, 'database' => $name],
        ));
    }

    /** @return list<string> */
    private static function paths(Request $request): array
    {
        $valid = $request->validate([
            'paths' => ['nullable', 'array', 'max:1000'],
            'paths.*' => ['string', 'max:4000'],
        ]);
        // Where a part is meant, nothing marked is not everything.
        $request->boolean('part') && ($valid['paths'] ?? []) === [] && throw new Problem(
            'Nothing was marked, so nothing was begun. Mark what is to be restored.',
        );

        return array_values(array_map(strval(...), $valid['paths'] ?? []));
    }
}
