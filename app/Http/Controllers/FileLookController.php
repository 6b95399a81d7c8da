<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Failure\Problem;
use App\Files\FileCompared;
use App\Files\FileLook;
use App\Files\FilePlace;
use App\Files\FileSecrets;
use App\Models\Account;
use App\Models\Site;
use Illuminate\Contracts\View\View;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** A picture, a document or a sound, as a page of ours shows it; a text beside what it said once. */
final readonly class FileLookController
{
    public function __construct(private FileLook $look, private FileCompared $compared)
    {
    }

    public function ofSite(Site $site, string $path): StreamedResponse
    {
        abort_unless($site->filesAreShown(), 404);

        return $this->look->stream(FilePlace::ofSite($site, $path));
    }

    public function ofAccount(Account $account, string $path): StreamedResponse
    {
        return $this->look->stream(FilePlace::ofAccount($account, $path));
    }

    public function compareInSite(Request $request, Site $site, string $path): View
    {
        return $this->compare($request, FilePlace::ofSite($site, $path));
    }

    public function compareInAccount(Request $request, Account $account, string $path): View
    {
        return $this->compare($request, FilePlace::ofAccount($account, $path));
    }

    private function compare(Request $request, FilePlace $file): View
    {
        FileSecrets::mayBeSeen($file->account->id, $file->at);
        $place = $file->at->equals($file->base) ? null : $file->at($file->at->parent());

        return view('file-compare', [
            'place' => $place ?? throw new Problem('This is no file. Choose one in its folder.'),
            'name' => $file->at->name(),
            'compared' => $this->compared->of($place, $file->at, (string) $request->query('with')),
        ]);
    }
}
