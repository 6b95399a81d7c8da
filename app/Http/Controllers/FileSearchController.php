<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Errands\Errands;
use App\Errands\ErrandTask;
use App\Failure\Problem;
use App\Files\FilePlace;
use App\Files\FileSearch;
use App\Files\FindFiles;
use App\Models\Account;
use App\Models\Errand;
use App\Models\Site;
use App\Text\When;
use Cellarium\Core\File\FileQuery;
use Cellarium\Core\File\TextFile;
use Cellarium\Core\Path\RemotePath;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;

/** Files that are looked for from a folder down; what is found is shown as it comes. */
final class FileSearchController
{
    public function inSite(Request $request, Site $site): RedirectResponse
    {
        return $this->begin($request, FilePlace::ofSite($site, ''));
    }

    public function inAccount(Request $request, Account $account): RedirectResponse
    {
        return $this->begin($request, FilePlace::ofAccount($account, ''));
    }

    public function show(Request $request, Errand $search): View
    {
        abort_unless(ErrandTask::find($search) === FindFiles::class, 404);
        $search->load('site.client', 'site.account.client', 'account.client');
        $fileQuery = FileSearch::query($search);

        return view($request->header('HX-Request') === 'true' ? 'parts.file-search' : 'file-search', [
            'errand' => $search,
            'place' => FilePlace::ofErrand($search) ?? abort(404),
            'sought' => $fileQuery,
            'dates' => [self::day($fileQuery->from), self::day(
                $fileQuery->until === null ? null : $fileQuery->until - 1,
            )],
            'findings' => FileSearch::read($search)->findings,
        ]);
    }

    /** As a field of the kind date has it. */
    private static function day(?int $moment): ?string
    {
        return $moment === null ? null : When::shown(new \DateTimeImmutable("@$moment"), 'Y-m-d');
    }

    private function begin(Request $request, FilePlace $all): RedirectResponse
    {
        $given = $request->validate([
            'at' => ['required', 'string', 'max:4000'],
            'name' => ['nullable', 'string', 'max:255'],
            'text' => ['nullable', 'string', 'max:500'],
            'exact' => ['nullable', 'boolean'],
            'smallest' => ['nullable', 'integer', 'min:0', 'max:1000000000'],
            'largest' => ['nullable', 'integer', 'min:0', 'max:1000000000'],
            'from' => ['nullable', 'date_format:Y-m-d'],
            'until' => ['nullable', 'date_format:Y-m-d'],
            'text_up_to' => ['nullable', 'integer', 'min:1', 'max:2000'],
        ]);
        $at = RemotePath::tryFromString($given['at']);
        $place = ($at === null ? null : $all->at($at))
            ?? throw new Problem('This folder is not among these files. Go back and look again.');
        $kilobytes = static fn (string $field): ?int => isset($given[$field]) ? 1000 * (int) $given[$field] : null;
        $fileQuery = new FileQuery(
            (string) ($given['name'] ?? ''),
            $kilobytes('smallest'),
            $kilobytes('largest'),
            When::typed(($given['from'] ?? '').'T00:00')?->getTimestamp(),
            When::typed(($given['until'] ?? '').'T00:00')?->addDay()->getTimestamp(),
            (string) ($given['text'] ?? ''),
            (bool) ($given['exact'] ?? false),
            min(TextFile::MOST, $kilobytes('text_up_to') ?? TextFile::MOST),
        );
        $errand = Errands::order(
            FindFiles::class,
            '/',
            $place->site ?? $place->account,
            ['at' => $at->toString(), 'sought' => $fileQuery->toArray()],
        );
        $errand->update(['back' => "/file-searches/$errand->id"]);

        return redirect("/file-searches/$errand->id");
    }
}
