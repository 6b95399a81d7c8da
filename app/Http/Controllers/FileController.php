<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Errands\Errands;
use App\Failure\Problem;
use App\Files\AskVisitors;
use App\Files\ChangeAsked;
use App\Files\ChangeFiles;
use App\Files\ChangesByHand;
use App\Files\ChosenFile;
use App\Files\CountFiles;
use App\Files\Download;
use App\Files\FileEntry;
use App\Files\FileOrder;
use App\Files\FilePlace;
use App\Files\FileTable;
use App\Files\KeptVersions;
use App\Files\LookAtFiles;
use App\Files\TornDifferences;
use App\Files\TornPages;
use App\Files\VisitorsPage;
use App\Models\Account;
use App\Models\ChangeByHand;
use App\Models\ChangeState;
use App\Models\DirectoryListing;
use App\Models\Errand;
use App\Models\ErrandState;
use App\Models\FileAction;
use App\Models\Person;
use App\Models\Site;
use App\Plans\CopyElsewhere;
use App\Plans\MakePlan;
use App\Plans\ManualUpload;
use App\Work\Tasks;
use Cellarium\Core\File\PrivateName;
use Cellarium\Core\File\Rights;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Validation\Rule;

/** The files of a site or an account: looked at one directory at a time, and changed by hand. */
final class FileController
{
    /** What was looked at longer ago is looked at again while it is shown. */
    private const FRESH_SECONDS = 5;

    private const EMPTY_PAGE = '<!doctype html><html lang="en"><meta charset="utf-8"><title></title></html>'.'
';

    public function __construct(private readonly KeptVersions $kept)
    {
    }

    public function site(Request $request, Site $site, string $path = ''): View|RedirectResponse
    {
        abort_unless($site->filesAreShown(), 404);

        return $this->show($request, FilePlace::ofSite($site->load('destinations'), $path));
    }

    public function account(Request $request, Account $account, string $path = ''): View|RedirectResponse
    {
        return $this->show($request, FilePlace::ofAccount($account, $path));
    }

    public function changeOfSite(Request $request, Site $site, ChangesByHand $changes): RedirectResponse
    {
        return $this->change($request, $this->asked($request, FilePlace::ofSite($site, '')), $changes);
    }

    public function changeOfAccount(Request $request, Account $account, ChangesByHand $changes): RedirectResponse
    {
        $place = FilePlace::ofAccount($account, '');

        return $this->change($request, $this->asked($request, $place), $changes);
    }

    public function askOfSite(Request $request, Site $site): RedirectResponse
    {
        return $this->ask($request, $this->asked($request, FilePlace::ofSite($site, '')));
    }

    public function askOfAccount(Request $request, Account $account): RedirectResponse
    {
        $place = FilePlace::ofAccount($account, '');

        return $this->ask($request, $this->asked($request, $place));
    }

    public function downloadOfSite(Request $request, Site $site): RedirectResponse
    {
        return $this->download($request, FilePlace::ofSite($site, ''));
    }

    public function downloadOfAccount(Request $request, Account $account): RedirectResponse
    {
        return $this->download($request, FilePlace::ofAccount($account, ''));
    }

    /** Files in one request, where the browser does not send them in pieces. */
    public function bring(Request $request, Site $site, ManualUpload $bringing): RedirectResponse
    {
        $place = $this->asked($request, FilePlace::ofSite($site, ''));
        $request->validate(['brought' => ['required', 'array', 'max:500'], 'brought.*' => ['file']]);
        $files = [];
        foreach ($request->file('brought') as $file) {
            $files[$file->getClientOriginalName()] = $file->getRealPath();
        }
        $person = $request->user();
        $plan = $bringing->files($site, $place->at, $files, $person instanceof Person ? $person : null);
        Tasks::order(MakePlan::class, $plan->id);

        return redirect("/deployments/$plan->id");
    }

    /** An empty start page, so that visitors get no list of what lies in the directory; a plan like any other. */
    public function startPage(Request $request, Site $site, ManualUpload $bringing): RedirectResponse
    {
        $place = $this->asked($request, FilePlace::ofSite($site, ''));
        $person = $request->user();
        $plan = $bringing->texts(
            $site,
            $place->at,
            [$site->start_pages[0] => self::EMPTY_PAGE],
            $person instanceof Person ? $person : null,
        );
        Tasks::order(MakePlan::class, $plan->id);

        return redirect("/deployments/$plan->id");
    }

    public function changed(ChangeByHand $byhand, TornDifferences $differences): View
    {
        $byhand->load([
            'account.client',
            'site.account.client',
            'site.client',
            'person',
            'versions',
        ]);

        return view(request()->header('HX-Request') === 'true' ? 'parts.file-change' : 'file-change', [
            'change' => $byhand,
            'steps' => $byhand->steps(),
            'torn' => TornPages::ofChange($byhand),
            'texts' => $differences->of($byhand),
            'place' => $this->placeOf($byhand),
        ]);
    }

    /** The page as visitors got it once it was saved. */
    public function page(ChangeByHand $byhand): Response
    {
        abort_unless(VisitorsPage::isKept($byhand), 404);

        return VisitorsPage::response($byhand->load('site'));
    }

    public function start(Request $request, ChangeByHand $byhand, ChangesByHand $changes): RedirectResponse
    {
        $changes->start($byhand, $request->boolean('mend'));

        return $this->carryOut($byhand->refresh(), "/file-changes/$byhand->id");
    }

    public function undo(Request $request, ChangeByHand $byhand, ChangesByHand $changes): RedirectResponse
    {
        $person = $request->user();
        $undo = $changes->orderUndo($byhand, $person instanceof Person ? $person : null);

        return $this->carryOut($undo, $this->placeOf($byhand)->url());
    }

    private function show(Request $request, FilePlace $place): View|RedirectResponse
    {
        $last = $request->boolean('last') ? FileOrder::lastAt($place) : null;
        $there = $last === null ? null : $place->at(RemotePath::fromString($last));
        if ($there !== null) {
            return redirect($place->url($there->at));
        }
        $listing = DirectoryListing::forPath($place->account, $place->at);
        $order = FileOrder::fromRequest($request, $place);
        if ($request->has('from')) {
            return view('parts.files-rows', [
                'table' => FileTable::fromListing($place, $listing, $order, $request->integer('from')),
            ]);
        }
        $going = $this->looked($request, $place, $listing);
        $listing = $going === null ? $listing : DirectoryListing::forPath($place->account, $place->at);
        $table = FileTable::fromListing($place, $listing, $order);
        $facts = [
            'table' => $table,
            'place' => $place,
            'chosen' => ChosenFile::fromTable($table, $request->query('chosen'), $this->kept),
            'going' => $going?->state->hasEnded() === false ? $going : null,
            'isOld' => $listing?->looked_at?->diffInSeconds(now()) > self::FRESH_SECONDS,
        ];

        return match (true) {
            $request->boolean('side') => view('parts.file-chosen', $facts),
            $request->header('HX-Request') === 'true' => view('parts.files-table', $facts),
            default => view('files', $facts + ['last' => $this->lastChange($place)]),
        };
    }

    /** A look that was begun for this, or before it; null where what is known will do. */
    private function looked(Request $request, FilePlace $place, ?DirectoryListing $listing): ?Errand
    {
        if ($request->boolean('side')) {
            return null;
        }
        $going = $request->integer('errand') > 0
            ? Errand::where(['id' => $request->integer('errand'), 'account_id' => $place->account->id])->first()
            : null;
        if ($going !== null || ($listing !== null && ! $request->boolean('look'))) {
            return $going;
        }
        $errand = Errands::start(LookAtFiles::class, $place->url(), $place->account, ['at' => $place->at->toString()]);
        if ($errand->state === ErrandState::Failed && DirectoryListing::forPath($place->account, $place->at) === null) {
            throw new Problem((string) $errand->words);
        }

        return $errand;
    }

    private function lastChange(FilePlace $place): ?ChangeByHand
    {
        return ChangeByHand::where('account_id', $place->account->id)
            ->where('person_id', Person::viewer()?->id)
            ->where('ended_at', '>', now()->subHour())
            ->when($place->site !== null, static fn ($query) => $query->where('site_id', $place->site?->id))
            ->latest('ended_at')
            ->latest('id')
            ->first();
    }

    /** The directory that a form was about. */
    private function asked(Request $request, FilePlace $place): FilePlace
    {
        $at = RemotePath::tryFromString((string) $request->input('at'));

        return ($at === null ? null : $place->at($at))
            ?? throw new Problem('This folder is not among these files. Go back and look again.');
    }

    private function change(Request $request, FilePlace $place, ChangesByHand $changes): RedirectResponse
    {
        $given = $request->validate([
            'do' => ['required', Rule::enum(FileAction::class)->except(FileAction::Undo)],
            'names' => ['nullable', 'array', 'max:1000'],
            'names.*' => ['string', 'max:1200'],
            'called' => ['nullable', 'string', 'max:1000'],
            'folder' => ['nullable', 'string', 'max:4000'],
            'files' => ['nullable', 'string', 'max:4'],
            'directories' => ['nullable', 'string', 'max:4'],
            'below' => ['nullable', 'boolean'],
            'private' => ['nullable', 'boolean'],
            'to_site' => ['nullable', 'integer'],
            'version' => ['nullable', 'string', 'regex:/\A[0-9a-f]{64}\z/'],
        ]);
        $chosen = $this->chosen($place, $given['names'] ?? []);
        $action = FileAction::from($given['do']);
        $person = $request->user();
        $person = $person instanceof Person ? $person : null;
        if (($given['to_site'] ?? null) !== null && in_array($action, [FileAction::Copy, FileAction::Move], true)) {
            return $this->copyElsewhere($place, $given, $action);
        }
        $change = $action === FileAction::Save
            ? $changes->orderVersion(
                $place,
                $chosen[0] ?? throw new Problem('Nothing was chosen. Go back and choose a file.'),
                (string) ($given['version'] ?? ''),
                $person,
            )
            : $changes->order(
                $place,
                $chosen,
                new ChangeAsked(
                    $action,
                    ($given['private'] ?? false)
                        ? PrivateName::fromWords($given['called'] ?? '')
                        : $given['called'] ?? null,
                    $this->target($place, $given['folder'] ?? null),
                    self::mode($given['files'] ?? null),
                    self::mode($given['directories'] ?? null),
                    (bool) ($given['below'] ?? false),
                ),
                $person,
            );
        if ($change->state === ChangeState::Counting) {
            $errand = Errands::start(
                CountFiles::class,
                "/file-changes/$change->id",
                $place->account,
                ['change' => $change->id, 'folder' => $place->url()],
            );

            // Where nobody has to be asked anything, it is done by now.
            return $errand->state->hasEnded() && $change->refresh()->state->hasEnded()
                ? redirect($place->url(null, ['chosen' => $this->chosenAfter($place, $change)]))
                : Errands::answer($errand);
        }

        return $this->carryOut($change, $place->url(null, ['chosen' => $this->chosenAfter($place, $change)]));
    }

    /**
     * To another site of the same client: what comes of it is a plan there.
     *
     * @param  array<string, mixed>  $given
     *
     * @throws Problem
     */
    private function copyElsewhere(FilePlace $place, array $given, FileAction $action): RedirectResponse
    {
        $site = $place->otherSites()->find($given['to_site'])
            ?? throw new Problem('This site is none of the same client. Choose another.');
        $this->chosen($place, $given['names'] ?? []) === []
            && throw new Problem('Nothing was chosen. Tick one or more files first.');
        $there = FilePlace::ofSite($site, '');

        return Errands::answer(Errands::start(
            CopyElsewhere::class,
            $place->url(),
            $place->site ?? $place->account,
            [
                'at' => $place->at->toString(),
                'names' => array_values($given['names']),
                'to_site' => $site->id,
                'into' => ($this->target($there, $given['folder'] ?? null) ?? $site->root())->toString(),
                'moves' => $action === FileAction::Move,
            ],
        ));
    }

    private function download(Request $request, FilePlace $place): RedirectResponse
    {
        $given = $request->validate([
            'names' => ['nullable', 'array', 'max:1000'],
            'names.*' => ['string', 'max:1200'],
            'do' => ['nullable', 'in:work_on'],
        ]);
        $there = $this->asked($request, $place);

        $names = array_values($given['names'] ?? []);
        $this->chosen($there, $names) === []
            && throw new Problem('Nothing was chosen. Tick one or more files first.');

        return Errands::answer(Errands::start(
            Download::class,
            $there->url(),
            $there->site ?? $there->account,
            [
                'at' => $there->at->toString(),
                'names' => $names,
                'work_on' => ($given['do'] ?? null) === 'work_on',
            ],
        ));
    }

    private function ask(Request $request, FilePlace $place): RedirectResponse
    {
        $given = $request->validate([
            'names' => ['required', 'array', 'max:1000'],
            'names.*' => ['string', 'max:1200'],
        ]);
        $names = array_map(
            static fn (ManifestEntry $entry): string => $entry->path->name(),
            $this->chosen($place, $given['names']),
        );

        $back = $place->url(null, ['chosen' => count($names) === 1 ? $names[0] : null]);
        $errand = Errands::start(
            AskVisitors::class,
            $back,
            $place->account,
            ['at' => $place->at->toString(), 'names' => $names],
        );

        // What came stands beside each of them.
        return $errand->state === ErrandState::Done ? redirect($back) : Errands::answer($errand);
    }

    /** The page it leads to tells what became of it. */
    private function carryOut(ChangeByHand $change, string $back): RedirectResponse
    {
        $errand = Errands::start(ChangeFiles::class, $back, $change->account, ['change' => $change->id]);

        return redirect($errand->state->hasEnded() ? $back : "/file-changes/$change->id");
    }

    /**
     * @param  array<array-key, string>  $words
     * @return list<ManifestEntry>
     */
    private function chosen(FilePlace $place, array $words): array
    {
        return array_map(
            static fn (string $word): ManifestEntry => FileEntry::seen($place->at, $word)
                ?? throw new Problem('What was chosen is not understood. Go back, look again and choose anew.'),
            array_values($words),
        );
    }

    /** A folder as somebody types it: from where these files begin, or from the one it is typed in. */
    private function target(FilePlace $place, ?string $typed): ?RemotePath
    {
        if ($typed === null || trim($typed) === '') {
            return null;
        }
        $below = RelativePath::tryFromString(trim($typed, '/'));
        $to = match (true) {
            trim($typed) === '/' => $place->base,
            $below === null => throw new Problem("“{$typed}” is no folder here."),
            str_starts_with($typed, '/') => $place->base->join($below),
            default => $place->at->join($below),
        };

        return $to;
    }

    /** @throws Problem */
    private static function mode(?string $digits): ?int
    {
        return $digits === null || $digits === ''
            ? null
            : Rights::parse($digits) ?? throw new Problem('Permissions are three digits from 0 to 7, like 644.');
    }

    /** What is still looked at when it is done: what it was about, where that is still here. */
    private function chosenAfter(FilePlace $place, ChangeByHand $change): ?string
    {
        $steps = $change->steps();
        $left = count($steps) === 1 ? $steps[0]->to ?? $steps[0]->path : null;

        return $left !== null && $left->parent()->equals($place->at) && $change->action !== FileAction::SetAside
            ? $left->name()
            : null;
    }

    private function placeOf(ChangeByHand $change): FilePlace
    {
        $change->loadMissing('account.sites', 'site.account.sites');
        $at = RemotePath::fromString($change->directory);
        $ofSite = $change->site === null ? null : FilePlace::ofSite($change->site, '')->at($at);

        return $ofSite ?? FilePlace::ofAccount($change->account, '')->at($at)
            ?? throw new \LogicException('An account holds each of its directories.');
    }
}
