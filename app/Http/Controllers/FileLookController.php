<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Errands\Errands;
use App\Failure\Problem;
use App\Files\FetchedFile;
use App\Files\FileCompared;
use App\Files\FileLook;
use App\Files\FilePlace;
use App\Files\FileSecrets;
use App\Models\Account;
use App\Models\Site;
use Cellarium\Core\File\TextFile;
use Illuminate\Contracts\View\View;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** A picture, a document or a sound, as a page of ours shows it; a text beside what it said once. */
final readonly class FileLookController
{
    /** What was fetched for the page that waits for it is not fetched again by the page that shows it. */
    private const COMPARED_SECONDS = 10;

    public function __construct(private FileLook $look, private FileCompared $compared)
    {
    }

    public function ofSite(Request $request, Site $site, string $path): Response
    {
        abort_unless($site->filesAreShown(), 404);

        return $this->look($request, FilePlace::ofSite($site, $path));
    }

    public function ofAccount(Request $request, Account $account, string $path): Response
    {
        return $this->look($request, FilePlace::ofAccount($account, $path));
    }

    public function compareInSite(Request $request, Site $site, string $path): View|RedirectResponse
    {
        return $this->compare($request, FilePlace::ofSite($site, $path));
    }

    public function compareInAccount(Request $request, Account $account, string $path): View|RedirectResponse
    {
        return $this->compare($request, FilePlace::ofAccount($account, $path));
    }

    private function look(Request $request, FilePlace $file): Response
    {
        if (! $request->expectsJson() && ! FileLook::isShown($file)) {
            // What no browser shows may be a text, and the editor says where it is none.
            return redirect($file->editUrl($file->at));
        }
        FileLook::type($file);
        FileSecrets::mayBeSeen($file->account->id, $file->at);
        $fetched = FetchedFile::forPlace(
            $file->account,
            $file->at,
            'look '.$request->string('seen'),
            $file->url($file->at->parent()),
            FileLook::MOST,
            false,
            FileLook::KEPT_SECONDS,
        )->facts();

        return $fetched === null
            ? new JsonResponse(['message' => 'The server has not answered yet.'], 202, ['Retry-After' => '1'])
            : $this->look->response($file, $fetched['file']);
    }

    private function compare(Request $request, FilePlace $file): View|RedirectResponse
    {
        FileSecrets::mayBeSeen($file->account->id, $file->at);
        $place = ($file->at->equals($file->base) ? null : $file->at($file->at->parent()))
            ?? throw new Problem('This is no file. Choose one in its folder.');
        $with = (string) $request->query('with');
        $this->compared->version($place, $file->at, $with);
        $fetched = FetchedFile::forPlace(
            $file->account,
            $file->at,
            'compare',
            $place->compareUrl($file->at, $with),
            TextFile::MOST,
            true,
            self::COMPARED_SECONDS,
        );
        $now = $fetched->text();

        return $now === null ? Errands::answer($fetched->errand) : view('file-compare', [
            'place' => $place,
            'name' => $file->at->name(),
            'compared' => $this->compared->of($place, $file->at, $with, $now, $fetched->facts()['seen'] ?? ''),
        ]);
    }
}
