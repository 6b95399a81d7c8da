<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\OwnType;
use App\Models\Package;
use App\Packages\TypeRow;
use App\Packages\Types;
use Cellarium\Core\Package\Type\PackageType;
use Cellarium\Core\Package\Type\TypeRefused;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Validation\ValidationException;

/** The rules for kinds of packages: looked at, changed, exchanged as YAML. */
final class PackageTypeController
{
    public function index(Types $types): View
    {
        $own = OwnType::pluck('id')->flip();
        $shipped = $types->shippedTexts();
        $counts = Package::kept()->groupBy('type')->selectRaw('type, COUNT(*) AS packages')->pluck('packages', 'type');

        return view('package-types', ['rows' => array_map(
            static fn (PackageType $type): TypeRow => new TypeRow(
                $type,
                $own->has($type->id),
                isset($shipped[$type->id]),
                (int) ($counts[$type->id] ?? 0),
            ),
            $types->types()->all(),
        )]);
    }

    public function edit(Types $types, string $type = ''): View
    {
        $texts = $types->texts();
        abort_if($type !== '' && ! isset($texts[$type]), 404);

        return view('package-type', [
            'id' => $type,
            'yaml' => $texts[$type] ?? '',
            'isOwn' => OwnType::whereKey($type)->exists(),
            'isShipped' => isset($types->shippedTexts()[$type]),
        ]);
    }

    public function save(Request $request, Types $types): RedirectResponse
    {
        $file = $request->file('file');
        $yaml = $file === null ? $request->string('yaml')->value() : mb_scrub((string) $file->get());
        try {
            $type = $types->save(str_replace("\r\n", "\n", $yaml));
        } catch (TypeRefused $refused) {
            throw ValidationException::withMessages(['yaml' => $refused->getMessage()]);
        }

        return redirect('/package-types')->with(
            'done',
            "$type->label is saved. Packages that are uploaded from now on are recognised by it.",
        );
    }

    public function download(Types $types, string $type): Response
    {
        return response($types->texts()[$type] ?? abort(404), 200, [
            'Content-Type' => 'application/yaml',
            'Content-Disposition' => "attachment; filename=\"$type.yaml\"",
        ]);
    }

    public function remove(Types $types, string $type): RedirectResponse
    {
        $types->remove($type);

        return redirect('/package-types')->with('done', "$type is no longer a type of your own.");
    }
}
