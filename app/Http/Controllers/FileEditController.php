<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Errands\Errands;
use App\Failure\Problem;
use App\Files\ChangeFiles;
use App\Files\FilePlace;
use App\Files\FileSecrets;
use App\Files\OpenFile;
use App\Files\TextEditing;
use App\Files\TextReview;
use App\Models\Account;
use App\Models\ChangeState;
use App\Models\ErrandState;
use App\Models\FileDraft;
use App\Models\Person;
use App\Models\Site;
use Illuminate\Contracts\View\View;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;

/** One text of a site or an account, edited in place. */
final class FileEditController
{
    public function __construct(private readonly TextEditing $editing, private readonly TextReview $review)
    {
    }

    public function ofSite(Request $request, Site $site, string $path): View|RedirectResponse
    {
        return $this->show($request, $this->file(FilePlace::ofSite($site, $path)));
    }

    public function ofAccount(Request $request, Account $account, string $path): View|RedirectResponse
    {
        return $this->show($request, $this->file(FilePlace::ofAccount($account, $path)));
    }

    /** Reviewed, saved, or let go. */
    public function act(Request $request, FileDraft $draft): View|RedirectResponse
    {
        $given = $request->validate([
            'do' => ['required', 'in:review,save,let_go,open'],
            'content' => ['nullable', 'string'],
            'files' => ['required', 'in:site,account'],
            'reason' => ['nullable', 'string', 'max:500'],
        ]);
        $place = $this->placeOf($draft, $given['files']);
        array_key_exists('content', $given) && $this->editing->keep($draft, $given['content'] ?? '');

        return match ($given['do']) {
            'review' => view('file-review', [
                'place' => $place,
                'draft' => $draft,
                'review' => $this->review->of($place, $draft),
            ]),
            'save' => $this->save($request, $place, $draft),
            default => $this->letGo($place, $draft, $given['do'] === 'open'),
        };
    }

    /** What was typed since, and who else is there; asked for by the page itself. */
    public function keep(Request $request, FileDraft $draft): JsonResponse
    {
        $given = $request->validate(['content' => ['nullable', 'string']]);
        $this->mayBeSeen($draft);
        $this->editing->keep($draft, array_key_exists('content', $given) ? $given['content'] ?? '' : null);

        return response()->json([
            'others' => $this->editing->othersInWords($draft),
            'isDraft' => $draft->text !== null,
        ]);
    }

    private function show(Request $request, FilePlace $file): View|RedirectResponse
    {
        $person = $request->user();
        assert($person instanceof Person);
        FileSecrets::mayBeSeen($file->account->id, $file->at);
        $draft = $this->editing->draft($file->account, $file->at, $person);
        $errand = Errands::start(OpenFile::class, $file->editUrl($file->at), $file->account, ['draft' => $draft->id]);
        if (! $errand->state->hasEnded()) {
            return Errands::answer($errand);
        }
        $draft->refresh();
        $directory = $file->at($file->at->parent()) ?? throw new Problem('This is no file. Choose one in its folder.');
        if ($errand->state !== ErrandState::Done && $draft->text === null) {
            $draft->delete();

            return redirect($directory->url(null, ['chosen' => $file->at->name()]))
                ->with('trouble', (string) $errand->words);
        }

        $base = $this->editing->base($draft);
        $this->mayBeSeen($draft);

        return view('file-edit', [
            'place' => $directory,
            'draft' => $draft,
            'base' => $base,
            'trouble' => $errand->state === ErrandState::Done ? null : $errand->words,
            'others' => $this->editing->othersInWords($draft),
            'merged' => $this->review->merged($draft),
            'files' => $file->site === null ? 'account' : 'site',
        ]);
    }

    private function save(Request $request, FilePlace $place, FileDraft $draft): RedirectResponse
    {
        $person = $request->user();
        $change = $this->editing->orderSave(
            $place,
            $draft,
            $person instanceof Person ? $person : null,
            $request->input('reason'),
        );
        $back = $place->url(null, ['chosen' => $draft->path()->name()]);
        $errand = Errands::start(ChangeFiles::class, $back, $place->account, ['change' => $change->id]);
        $change->refresh();

        return match (true) {
            ! $errand->state->hasEnded() => redirect("/file-changes/$change->id"),
            $change->state === ChangeState::Done => redirect($back),
            // The draft is still there, and is put together with what somebody else saved when it is opened again.
            default => redirect($place->editUrl($draft->path()))
                ->with('trouble', "Not saved. $change->trouble Your text is kept as a draft."),
        };
    }

    private function letGo(FilePlace $place, FileDraft $draft, bool $isOpenedAgain): RedirectResponse
    {
        $path = $draft->path();
        $draft->delete();

        return redirect($isOpenedAgain
            ? $place->editUrl($path)
            : $place->url(null, ['chosen' => $path->name()]));
    }

    private function placeOf(FileDraft $draft, string $files): FilePlace
    {
        $this->mayBeSeen($draft);
        $draft->load('account.client', 'account.sites.client');
        $path = $draft->path();
        $account = FilePlace::ofAccount($draft->account, '')->at($path->parent());
        $site = $files === 'site' ? $account?->served() : null;

        return ($site === null ? null : FilePlace::ofSite($site->setRelation('account', $draft->account), '')
            ->at($path->parent())) ?? $account ?? throw new Problem('This file is no longer among these.');
    }

    private function mayBeSeen(FileDraft $draft): void
    {
        FileSecrets::mayBeSeen(
            $draft->account_id,
            $draft->path(),
            $draft->base_sha256 === null ? null : $this->editing->base($draft)->edited(),
        );
    }

    private function file(FilePlace $place): FilePlace
    {
        return $place->at->equals($place->base)
            ? throw new Problem('This is no file. Choose one in its folder.')
            : $place;
    }
}
