<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Backups\BackUpOverdue;
use App\Backups\BackupZip;
use App\Backups\TakeBackup;
use App\Deployments\MakePlan;
use App\Deployments\Plans;
use App\Models\Backup;
use App\Models\BackupReason;
use App\Models\BackupState;
use App\Models\Person;
use App\Models\RecordKind;
use App\Models\Site;
use App\Record\Record;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\StreamedResponse;

final class BackupController
{
    private const EACH = 100;

    public function index(Request $request): View
    {
        $site =
            $request->integer('site') > 0 ? Site::with('account.client')->findOrFail($request->integer('site')) : null;
        $backups = Backup::with('site.account.client', 'site.client', 'person')
            ->when($site !== null, static fn ($query) => $query->where('site_id', $site->id))
            ->orderByDesc('id')
            ->simplePaginate(self::EACH)
            ->withPath('/backups')
            ->withQueryString();
        $data = ['backups' => $backups, 'site' => $site, 'taking' => $backups->contains('state', BackupState::Taking)];

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
            TakeBackup::dispatch($backup->id);
        }

        return redirect("/backups?site=$site->id");
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
            TakeBackup::dispatch($backup->id);
        }

        return redirect("/backups?site=$backup->site_id");
    }

    /** Read whole before the first byte is sent, so that what is saved is whole. */
    public function download(Backup $backup, BackupZip $zip): StreamedResponse
    {
        $backup->load('site.account');
        $response = $zip->response($backup);
        Record::write(
            RecordKind::BackupDownloaded,
            "Backup number $backup->id of {$backup->site->domain} was downloaded",
            $backup->site,
            ['backup' => $backup->id],
        );

        return $response;
    }

    public function restore(Request $request, Backup $backup, Plans $plans): RedirectResponse
    {
        $backup->load('site.account.client', 'site.account.sites');
        $person = $request->user();
        $deployment = $plans->orderRestoreBackup($backup, $person instanceof Person ? $person : null);
        MakePlan::dispatch($deployment->id);

        return redirect("/deployments/$deployment->id");
    }
}
