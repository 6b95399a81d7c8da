<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Failure\Problem;
use App\Models\DeploymentState;
use App\Models\Package;
use App\Models\Site;
use App\Packages\FileTree;
use App\Packages\InstalledOn;
use App\Packages\LetGo;
use App\Packages\PackagePage;
use App\Packages\Packages;
use App\Packages\PackageVersions;
use App\Packages\ReferencesView;
use App\Packages\Types;
use App\Plans\DeploymentPreviews;
use Cellarium\Core\Package\Type\TypeRules;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;

final class PackageController
{
    public function take(Request $request, Packages $packages): RedirectResponse
    {
        $request->validate(
            ['package' => ['required', 'file']],
            [
                'package.required' => 'Choose a zip, tar, tar.gz or tar.xz first.',
                'package.uploaded' => 'The file did not arrive whole; it may be larger '
                    .'than '.ini_get('upload_max_filesize').'.',
            ],
        );
        $file = $request->file('package');
        $package = $packages->take($file->getRealPath(), $file->getClientOriginalName());
        $site = $request->integer('site');

        return redirect("/packages/$package->id".($site > 0 ? "?site=$site" : ''));
    }

    /** One directory of how a site would be with it, as it is opened. */
    public function landing(Request $request, Package $package, DeploymentPreviews $previews): View
    {
        $site = Site::with('account.sites')->findOrFail($request->integer('site'));
        $preview = $previews->of($site, $package);

        return view('parts.plan-rows', [
            'deployment' => null,
            'rowsAt' => "/packages/$package->id/landing?site=$site->id&",
            'rows' => $preview->tree?->inside((string) $request->query('in'), PlanController::from($request))
                ?? throw new Problem((string) $preview->problem),
        ]);
    }

    public function show(
        Request $request,
        Package $package,
        Packages $packages,
        Types $types,
        DeploymentPreviews $previews,
    ): View {
        if ($package->isLetGo()) {
            return view('package-let-go', ['package' => $package, 'versions' => PackageVersions::forPackage($package)]);
        }
        $site = $request->integer('site') > 0
            ? Site::with('account.client', 'account.sites')->find($request->integer('site'))
            : null;
        $contents = $package->contents();
        $on = new InstalledOn($types->types());
        $installed = $on->sites($package);

        return view('package', [
            'package' => $package,
            'page' => new PackagePage($package, $contents, $packages, $site, $types->types()),
            'references' => self::drawing($package, $types, '', ''),
            'tree' => FileTree::ofManifest($contents),
            'landing' => $site === null ? null : $previews->of($site, $package),
            'suiting' => $on->suiting($package, $installed),
            'installed' => $installed,
            'versions' => PackageVersions::forPackage($package),
            'site' => $site,
            'deployed' => $package
                ->deployments()
                ->with('site')
                ->where('state', DeploymentState::Proven)
                ->latest('id')
                ->first()
                ?->site,
        ]);
    }

    /** What kind it is, where the rules do not say, or say the wrong thing. */
    public function say(Request $request, Package $package, Packages $packages, Types $types): RedirectResponse
    {
        LetGo::mustBeHere($package);
        $type = $types->types()->get($request->string('type')->value()) ?? abort(404);
        $packages->sayType($package, $type->id);

        return redirect("/packages/$package->id")->with('done', "{$package->title()} is of the type $type->label now.");
    }

    /** Where the archive says neither by its own manifest nor by its file name, or says the wrong thing. */
    public function name(Request $request, Package $package, Packages $packages, Types $types): RedirectResponse
    {
        LetGo::mustBeHere($package);
        // Where a part of a system goes follows from the name that it gives itself.
        $isFixed = $types->types()->get((string) $package->type)?->name !== null;
        $typed = $request->validate(
            [
                'name' => ['required', 'string', 'max:100', 'regex:/\A\w[\w .-]*\z/u'],
                'version' => ['nullable', 'string', 'max:40', 'regex:/\A\w[\w.+-]*\z/'],
            ],
            [
                'name.regex' => 'A name has letters, digits, blanks, ".", "-" and "_".',
                'version.regex' => 'A version has letters, digits, ".", "+", "-" and "_": 2.4.1-rc1.',
            ],
        );
        $packages->name($package, $isFixed ? $package->name : trim($typed['name']), $typed['version'] ?? null);

        return redirect("/packages/$package->id")->with('done', "It is called {$package->title()} now.");
    }

    /** The drawing by itself, with a directory opened or a file chosen; without htmx within the page around it. */
    public function references(Request $request, Package $package, Types $types): View
    {
        LetGo::mustBeHere($package);
        $references = self::drawing(
            $package,
            $types,
            trim($request->string('in')->value(), '/'),
            $request->string('file')->value(),
        );

        return $request->header('HX-Request') === 'true'
            ? view('parts.references', ['references' => $references])
            : view('references', ['package' => $package, 'references' => $references]);
    }

    private static function drawing(Package $package, Types $types, string $open, string $file): ReferencesView
    {
        $type = $types->types()->get((string) $package->type);

        return new ReferencesView(
            $package,
            TypeRules::fetchable($package->contents(), $type),
            TypeRules::servedFolder($type),
            $open,
            $file,
        );
    }
}
