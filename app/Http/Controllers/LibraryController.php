<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Package;
use App\Packages\CompareView;
use App\Packages\LetGo;
use App\Packages\Library;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Words\Count;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;

/** All packages: found, compared, let go. */
final class LibraryController
{
    public function index(Request $request): View
    {
        $library = Library::fromRequest($request);

        return view('packages', ['library' => $library, 'packages' => $library->page()]);
    }

    public function compare(Request $request, Package $package, Package $other, ContentStore $store): View
    {
        LetGo::mustBeHere($package);
        LetGo::mustBeHere($other);

        return view('compare', [
            'compare' => new CompareView($other, $package, $store, $request->string('file')->value()),
        ]);
    }

    /** Of the packages that were chosen all older versions; of a single version that one. */
    public function offer(Request $request): View
    {
        $chosen = self::chosen($request);
        $letGo = $request->boolean('this')
            ? LetGo::forPackages($chosen)
            : LetGo::olderOf(Package::kept()->whereIn('id', $chosen)->pluck('name')->all());

        return view('let-go', ['letGo' => $letGo]);
    }

    public function letGo(Request $request): RedirectResponse
    {
        $count = LetGo::forPackages(self::chosen($request))->carryOut();

        return redirect('/packages')->with('done', Count::words($count, 'version is let go.', 'versions are let go.'));
    }

    /** @return list<int> */
    private static function chosen(Request $request): array
    {
        $given = array_filter(
            (array) $request->input('packages', []),
            static fn (mixed $id): bool => is_string($id) && ctype_digit($id),
        );

        return array_values(array_map(intval(...), $given));
    }
}
