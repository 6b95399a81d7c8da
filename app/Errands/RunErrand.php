<?php

declare(strict_types=1);

namespace App\Errands;

use App\Accounts\AccountCheck;
use App\Accounts\PasswordRenewal;
use App\Accounts\SitePhp;
use App\Backups\DatabaseRestore;
use App\Deployments\LaterProof;
use App\Deployments\MakePlan;
use App\Deployments\ManualUpload;
use App\Deployments\OpenAddresses;
use App\Failure\Problem;
use App\Files\CarryOutByHand;
use App\Files\ChangesByHand;
use App\Files\Downloads;
use App\Files\FileEntry;
use App\Files\FileFetch;
use App\Files\FilePlace;
use App\Files\FileSearch;
use App\Files\Listings;
use App\Files\RemoteCollector;
use App\Files\RemoteFileSearch;
use App\Files\SiteRights;
use App\Files\TextEditing;
use App\Files\VisitorsAsked;
use App\FtpUsers\FtpUserOrders;
use App\FtpUsers\FtpUsers;
use App\Hosting\Connections;
use App\Models\Account;
use App\Models\Backup;
use App\Models\ChangeByHand;
use App\Models\ChangeState;
use App\Models\Errand;
use App\Models\ErrandKind;
use App\Models\ErrandState;
use App\Models\FileDraft;
use App\Models\FtpUser;
use App\Models\PendingAction;
use App\Models\Person;
use App\Models\Site;
use App\Models\Upload;
use App\Moves\AccountMove;
use App\Moves\MoveAccount;
use App\Packages\Types;
use App\Packages\Uploads;
use App\Queue\ForHost;
use App\Reach\DirectoryLook;
use App\Removal\Removal;
use App\Removal\RemovalImpact;
use App\Storage\RunIds;
use App\Text\Amount;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Diagnosis\Rung;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Package\Type\InstalledPackages;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Path\TemporaryName;
use Cellarium\Core\Storage\Locks;
use Cellarium\Core\Transfer\Cancelled;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Facades\Auth;

/** Does one errand in a queue worker and writes down what came of it; holds its number and nothing else. */
final class RunErrand implements ForHost, ShouldQueue
{
    use Queueable;

    public int $timeout = 0;

    public function __construct(public readonly int $errand)
    {
    }

    public static function order(Errand $errand): void
    {
        self::dispatch($errand->id)->onQueue($errand->kind->queue());
    }

    public static function lockName(int $errand): string
    {
        return "errand-$errand";
    }

    public function host(): ?string
    {
        return Errand::with('account', 'site.account', 'ftpUser.account')->find($this->errand)?->host();
    }

    public function handle(): void
    {
        $lock = app(Locks::class)->acquire(self::lockName($this->errand));
        try {
            $lock === null ?: $this->take();
        } finally {
            $lock?->release();
        }
    }

    private function take(): void
    {
        // Once and by one: an errand whose worker was killed is not done again by itself, it may have been half done.
        $taken = Errand::where(['id' => $this->errand, 'state' => ErrandState::Waiting])->update([
            'state' => ErrandState::Running,
            'started_at' => now(),
        ]);
        $errand = $taken === 1
            ? Errand::with(
                'client.accounts.sites',
                'client.sites',
                'account.client',
                'account.sites',
                'site.account.client',
                'ftpUser.account.sites',
                'person',
            )->find($this->errand)
            : null;
        if ($errand === null) {
            return;
        }
        // What is done and recorded is that person's, and they see what they may.
        $before = Person::viewer();
        $errand->person === null || Auth::setUser($errand->person);
        try {
            $ended = $this->run($errand);
        } catch (\Throwable $failure) {
            $expected = Problem::isExpected($failure);
            $this->end($errand, [
                'state' => ErrandState::Failed,
                'words' => $expected ? Problem::words($failure) : 'An error inside Cellarium; its log says which.',
            ]);
            if (! $expected) {
                throw $failure;
            }

            return;
        } finally {
            self::actAs($before);
        }
        $this->end($errand, $ended + ['state' => ErrandState::Done]);
    }

    private static function actAs(?Person $person): void
    {
        $person === null ? Auth::forgetUser() : Auth::setUser($person);
    }

    /**
     * Unless it was cancelled meanwhile.
     *
     * @param  array<string, mixed>  $columns
     */
    private function end(Errand $errand, array $columns): void
    {
        Errand::whereKey($errand->id)->where('state', ErrandState::Running)->exists() && $errand->update($columns);
    }

    /** @return array<string, mixed> columns of the errand */
    private function run(Errand $errand): array
    {
        return match ($errand->kind) {
            ErrandKind::FindRoot => $this->findRoot($errand),
            ErrandKind::ProveRoot => $this->proveRoot($errand),
            ErrandKind::ProveLive => $this->proveLive($errand),
            ErrandKind::AskPhp => $this->askPhp($errand),
            ErrandKind::AskOpen => $this->askOpen($errand),
            ErrandKind::RestoreDatabase => $this->restoreDatabase($errand),
            ErrandKind::RenewPassword => $this->renewPassword($errand),
            ErrandKind::MakeUser => $this->makeUser($errand),
            ErrandKind::ChangeUser => $this->changeUser($errand),
            ErrandKind::CloseUser => $this->closeUser($errand),
            ErrandKind::LookAtTree => $this->lookAtTree($errand),
            ErrandKind::TryAccount => $this->tryAccount($errand),
            ErrandKind::Remove => $this->remove($errand),
            ErrandKind::TakePackage => $this->takePackage($errand),
            ErrandKind::TakeFiles => $this->takeFiles($errand),
            ErrandKind::LookAtFiles => $this->lookAtFiles($errand),
            ErrandKind::OpenFile => $this->openFile($errand),
            ErrandKind::FetchFile => $this->fetchFile($errand),
            ErrandKind::Download => $this->download($errand),
            ErrandKind::AskVisitors => $this->askVisitors($errand),
            ErrandKind::CountFiles => $this->countFiles($errand),
            ErrandKind::ChangeFiles => $this->changeFiles($errand),
            ErrandKind::FindFiles => $this->findFiles($errand),
            ErrandKind::CheckRights => $this->checkRights($errand),
            ErrandKind::CopyElsewhere => $this->copyElsewhere($errand),
            ErrandKind::MoveAccount => $this->moveAccount($errand),
        };
    }

    private static function removed(): Problem
    {
        return new Problem('It was removed meanwhile. Nothing was done.');
    }

    /** @return array<string, mixed> */
    private function findRoot(Errand $errand): array
    {
        $found = app(AccountCheck::class)->findRoot($errand->site ?? throw self::removed());
        if ($found === []) {
            throw new Problem(
                'No directory of this account looks like a document root. Connect and look at its directories.',
            );
        }

        return ['words' => 'The likeliest directory comes first; prove it.'];
    }

    /** @return array<string, mixed> */
    private function proveRoot(Errand $errand): array
    {
        $directory = $errand->given['directory'] ?? null;
        $step = app(AccountCheck::class)->proveRoot(
            $errand->site ?? throw self::removed(),
            is_string($directory) ? RemotePath::fromString($directory) : null,
        );

        return $step->ok
            ? ['words' => "$step->sentence. $step->next"]
            : throw new Problem("$step->sentence. $step->next");
    }

    /** @return array<string, mixed> */
    private function proveLive(Errand $errand): array
    {
        return ['words' => app(LaterProof::class)->prove($errand->site ?? throw self::removed())];
    }

    /** @return array<string, mixed> */
    private function askPhp(Errand $errand): array
    {
        $site = $errand->site ?? throw self::removed();
        $answer = app(SitePhp::class)->ask($site);
        $sentence = SitePhp::sentence($site, $answer);

        return $answer->trouble === null ? ['words' => "$sentence."] : throw new Problem("$sentence.");
    }

    /** @return array<string, mixed> */
    private function askOpen(Errand $errand): array
    {
        $open = app(OpenAddresses::class)->askAgain($errand->site ?? throw self::removed());

        return ['words' => match ($open) {
            0 => 'None of them answers visitors any more.',
            1 => 'One address answers everybody still.',
            default => "$open addresses answer everybody still.",
        }];
    }

    /** @return array<string, mixed> */
    private function restoreDatabase(Errand $errand): array
    {
        $backup = Backup::with('site.account.client')->find((int) ($errand->given['backup'] ?? 0))
            ?? throw self::removed();

        return ['words' => app(DatabaseRestore::class)->carryOut($backup, (string) ($errand->given['database'] ?? ''))];
    }

    /** @return array<string, mixed> */
    private function renewPassword(Errand $errand): array
    {
        app(PasswordRenewal::class)->renew($errand->account ?? throw self::removed());

        return ['words' => 'The password is renewed at the host and here, and proven by signing in with it.'];
    }

    /** @return array<string, mixed> where it is refused, the form is shown again as it was typed, see NewFtpUserForm */
    private function makeUser(Errand $errand): array
    {
        $account = $errand->account ?? throw self::removed();
        $made = app(FtpUserOrders::class)->make($account, (array) ($errand->given['typed'] ?? []), $errand->person);

        return $made instanceof FtpUser
            ? ['words' => "$made->login is asked for.", 'back' => "/ftp-users/$made->id", 'given' => []]
            : [
                'words' => implode(' ', $made),
                'result' => ['wrong' => $made],
                'state' => ErrandState::Failed,
                'back' => "/accounts/$account->id/ftp-users/new?refused=$errand->id",
            ];
    }

    /** @return array<string, mixed> */
    private function changeUser(Errand $errand): array
    {
        $user = $errand->ftpUser ?? throw self::removed();
        app(FtpUserOrders::class)->change($user, $errand->given);

        return ['words' => "The host was asked about $user->login."];
    }

    /** @return array<string, mixed> */
    private function closeUser(Errand $errand): array
    {
        $users = app(FtpUsers::class);
        $user = $errand->ftpUser ?? throw self::removed();
        if ($users->close($user, 'by hand')) {
            return ['words' => "$user->login is closed; its sign-in is refused."];
        }

        return $user->action() === PendingAction::Close && $users->byHand($user)
            ? ['words' => 'Close it at the provider; what to do stands here.', 'back' => "/ftp-users/$user->id"]
            : throw new Problem("$user->login could not be closed: $user->trouble");
    }

    /** @return array<string, mixed> */
    private function lookAtTree(Errand $errand): array
    {
        $account = $errand->account ?? throw self::removed();
        $made = $errand->given['made'] ?? null;
        is_string($made)
            ? app(DirectoryLook::class)->lookAgain($account, RemotePath::fromString($made))
            : app(DirectoryLook::class)->look($account, RemotePath::fromString((string) ($errand->given['at'] ?? '/')));

        return ['words' => 'Looked at.'];
    }

    /** @return array<string, mixed> */
    private function remove(Errand $errand): array
    {
        $subject = $errand->site ?? $errand->account ?? $errand->client ?? throw self::removed();
        $keep = (int) ($errand->given['keep'] ?? 0);
        app(Removal::class)->remove(
            $subject,
            array_map(intval(...), $errand->given['close'] ?? []),
            array_map(intval(...), $errand->given['leave'] ?? []),
            $keep === 0 ? null : $keep,
            $errand->person,
        );

        return ['words' => ucfirst(RemovalImpact::name($subject)).' is removed from Cellarium.'];
    }

    /** @return array<string, mixed> */
    private function takePackage(Errand $errand): array
    {
        $package = app(Uploads::class)->finish(
            Upload::find((int) ($errand->given['upload'] ?? 0)) ?? throw self::removed(),
        );
        $site = (int) ($errand->given['site'] ?? 0);

        return [
            'words' => "{$package->title()} is received and verified: SHA-256 ".substr($package->sha256, 0, 12).'…',
            'back' => "/packages/$package->id".($site > 0 ? "?site=$site" : ''),
        ];
    }

    /** @return array<string, mixed> */
    private function takeFiles(Errand $errand): array
    {
        $upload = Upload::find((int) ($errand->given['upload'] ?? 0)) ?? throw self::removed();
        $site = Site::with('account.client')->find($upload->site_id) ?? throw self::removed();
        $uploads = app(Uploads::class);
        $plan = app(ManualUpload::class)->archive(
            $site,
            RemotePath::fromString((string) $upload->into),
            $uploads->whole($upload),
            $errand->person,
        );
        $uploads->empty($upload);
        MakePlan::dispatch($plan->id);

        return [
            'words' => 'It is compared with what is on the server; nothing is replaced yet.',
            'back' => "/deployments/$plan->id",
        ];
    }

    /** @return list<ManifestEntry> */
    private static function chosen(Errand $errand, FilePlace $place): array
    {
        return array_map(
            static fn (string $word): ManifestEntry => FileEntry::seen($place->at, $word) ?? throw self::removed(),
            $errand->given['names'] ?? [],
        );
    }

    private static function filePlace(Errand $errand): FilePlace
    {
        return FilePlace::ofErrand($errand) ?? throw self::removed();
    }

    /** @return array<string, mixed> */
    private function lookAtFiles(Errand $errand): array
    {
        app(Listings::class)->look(self::filePlace($errand));

        return ['words' => 'Looked at.'];
    }

    /** @return array<string, mixed> */
    private function openFile(Errand $errand): array
    {
        $draft = FileDraft::with('account.sites')->find((int) ($errand->given['draft'] ?? 0)) ?? throw self::removed();
        app(TextEditing::class)->open($draft);

        return ['words' => 'Opened.'];
    }

    /** @return array<string, mixed> */
    private function fetchFile(Errand $errand): array
    {
        $given = $errand->given;
        $fetched = app(FileFetch::class)->fetch(
            $errand->account ?? throw self::removed(),
            RemotePath::fromString((string) ($given['path'] ?? '/')),
            (int) ($given['most'] ?? 0),
            (bool) ($given['text'] ?? true),
        );

        return ['words' => 'Fetched.', 'result' => $fetched];
    }

    /** @return array<string, mixed> what it holds is sent while it comes, see Downloads */
    private function download(Errand $errand): array
    {
        $place = self::filePlace($errand);
        $result = app(Downloads::class)->fetch(
            $errand,
            $place,
            self::chosen($errand, $place),
            self::untilCancelled($errand),
        );

        return ['words' => 'All of it has come.', 'result' => $result];
    }

    /** @return array<string, mixed> */
    private function askVisitors(Errand $errand): array
    {
        $asked = app(VisitorsAsked::class)->ask(self::filePlace($errand), $errand->given['names'] ?? []);

        return ['words' => Amount::files($asked).' asked for as visitors do.'];
    }

    /** @return array<string, mixed> */
    private function findFiles(Errand $errand): array
    {
        $search = FileSearch::begun($errand);
        try {
            app(RemoteFileSearch::class)->find(
                self::filePlace($errand),
                FileSearch::query($errand),
                $search->hear(...),
            );
        } catch (Cancelled) {
            return [];
        } finally {
            // Also of one that did not come to its end: what was found until then was found.
            $search->keepLast();
        }

        return ['words' => 'Looked through.'];
    }

    /** @return array<string, mixed> */
    private function checkRights(Errand $errand): array
    {
        $site = $errand->site ?? throw self::removed();
        $installed = InstalledPackages::written($site->installed, app(Types::class)->types());
        $found = app(SiteRights::class)->check($site, $installed->all, self::untilCancelled($errand));

        return ['words' => 'Checked.', 'result' => $found];
    }

    /** @return array<string, mixed> */
    private function copyElsewhere(Errand $errand): array
    {
        $place = self::filePlace($errand);
        $given = $errand->given;
        $site = Site::with('account.client')->find((int) ($given['to_site'] ?? 0)) ?? throw self::removed();
        $files = app(RemoteCollector::class)->fetch(
            $place,
            self::chosen($errand, $place),
            self::untilCancelled($errand),
        );
        $plan = app(ManualUpload::class)->copies(
            $site,
            RemotePath::fromString((string) $given['into']),
            $files,
            ($given['moves'] ?? false) ? [
                'action' => $place->owner().'/file-changes',
                'at' => $place->at->toString(),
                'names' => $given['names'],
                'where' => "$place->at on ".($place->site->domain ?? $place->account->title()),
            ] : null,
            $errand->person,
        );
        MakePlan::dispatch($plan->id);

        return [
            'words' => 'The files are fetched and compared with what is there; nothing is replaced yet.',
            'back' => "/deployments/$plan->id",
        ];
    }

    /** @return array<string, mixed> */
    private function moveAccount(Errand $errand): array
    {
        $given = $errand->given;
        $account = static fn (int $id): Account => Account::with('client', 'sites.destinations', 'ftpUsers')->find($id)
            ?? throw self::removed();
        $done = app(MoveAccount::class)->carryOut(
            new AccountMove(
                $account((int) $errand->account_id),
                $account((int) ($given['to'] ?? 0)),
                $given['directories'] ?? [],
            ),
            $given['sites'] ?? [],
            $given['users'] ?? [],
            $errand->person,
        );

        $count = static fn (int $count, string $what): string => $count === 1 ? "1 $what" : "$count {$what}s";
        $words = "There now: {$count($done['sites'], 'site')}, {$count($done['users'], 'FTP user')}."
            .($done['waits'] === 0
                ? ''
                : " To be made by you at the provider: {$count($done['waits'], 'FTP user')}.");

        return ['words' => $done['troubles'] === []
            ? "$words The files of the sites wait below as plans."
            : throw new Problem($words.' '.implode(' ', $done['troubles']))];
    }

    /** @return \Closure(): void that throws Cancelled once somebody has cancelled it */
    private static function untilCancelled(Errand $errand): \Closure
    {
        $next = 0.0;

        return static function () use ($errand, &$next): void {
            if (hrtime(true) / 1e9 > $next) {
                $next = hrtime(true) / 1e9 + 1.0;
                Errand::whereKey($errand->id)->where('state', ErrandState::Running)->exists()
                    || throw Cancelled::byAPerson();
            }
        };
    }

    private static function change(Errand $errand): ChangeByHand
    {
        return ChangeByHand::with('account.sites', 'site.account.client', 'person')
            ->find((int) ($errand->given['change'] ?? 0)) ?? throw self::removed();
    }

    /** @return array<string, mixed> */
    private function countFiles(Errand $errand): array
    {
        $change = self::change($errand);
        try {
            app(ChangesByHand::class)->count($change);
        } catch (\Throwable $failure) {
            $change->update([
                'state' => ChangeState::Refused,
                'trouble' => Problem::words($failure),
                'ended_at' => now(),
            ]);
            throw $failure;
        }

        if (ChangesByHand::needsLook($change->refresh())) {
            return ['words' => 'Nothing was touched yet.', 'back' => "/file-changes/$change->id"];
        }
        // Nobody has to be asked anything; from here on it is not cancelled any more.
        $goesOn = Errand::whereKey($errand->id)
            ->where('state', ErrandState::Running)
            ->update(['kind' => ErrandKind::ChangeFiles]) === 1;
        if (! $goesOn) {
            return [];
        }
        app(ChangesByHand::class)->start($change, false);

        return $this->changeFiles($errand) + ['back' => $errand->given['folder'] ?? $errand->back];
    }

    /** @return array<string, mixed> */
    private function changeFiles(Errand $errand): array
    {
        $change = app(CarryOutByHand::class)->carryOut(self::change($errand));

        return $change->state === ChangeState::Done
            ? ['words' => "$change->title: done, and confirmed by the server."]
            : throw new Problem("$change->title: {$change->state->label()}. $change->trouble");
    }

    /** @return array<string, mixed> what was typed stays with it until it is shown again */
    private function tryAccount(Errand $errand): array
    {
        $connections = app(Connections::class);
        $values = $errand->given['values'] ?? [];
        $account = (new Account)->forceFill(['protocol' => Protocol::from((string) $values['protocol'])] + $values);
        $ascent = $connections->ladder()->climb(
            $connections->endpointAsSaved($account),
            $errand->account?->known_address,
            [],
            null,
            TemporaryName::forRun(RunIds::ofProbe(), 0),
        );

        return ['words' => '', 'result' => [
            'rungs' => array_map(static fn (Rung $rung): array => $rung->toArray(), $ascent->rungs),
            'held' => $ascent->holds(),
        ]];
    }
}
