<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Package;
use App\Packages\LetGo;
use App\Packages\MendChoice;
use App\Packages\MendedVersion;
use App\Packages\MendPreview;
use App\Packages\Packages;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;

/** Mending a package: looked at as a difference first, then made as a package of its own. */
final class MendController
{
    public function show(Request $request, Package $package, Packages $packages): View
    {
        LetGo::mustBeHere($package);
        $choice = self::choice($request);

        return view('mend', [
            'package' => $package,
            'choice' => $choice,
            'preview' => new MendPreview($packages->mendPlan($package, $choice)),
            'version' => MendedVersion::next($package),
        ]);
    }

    public function make(Request $request, Package $package, Packages $packages): RedirectResponse
    {
        LetGo::mustBeHere($package);
        $mended = $packages->mend($package, self::choice($request));

        return redirect("/packages/$mended->id")->with(
            'done',
            "{$mended->title()} is made; {$package->title()} stays as it was.",
        );
    }

    private static function choice(Request $request): MendChoice
    {
        return MendChoice::tryFromString($request->string('what')->value() ?: 'all') ?? abort(404);
    }
}
