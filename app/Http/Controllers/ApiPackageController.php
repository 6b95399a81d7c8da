<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Failure\Problem;
use App\Models\ApiToken;
use App\Packages\Packages;
use App\Packages\ScratchInspection;
use Cellarium\Core\Package\Finding\Severity;
use Cellarium\Core\Package\PackageOrigin;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\UploadedFile;

/** The API for build pipelines; docs/api.json describes it. */
final class ApiPackageController
{
    public function deliver(Request $request, Packages $packages): JsonResponse
    {
        $file = self::file($request);
        $name = $file->getClientOriginalName();
        $token = $request->attributes->get(ApiToken::class);
        assert($token instanceof ApiToken);
        if ($token->package_name !== null && PackageOrigin::named($name)->name !== $token->package_name) {
            return response()->json(
                ['error' => "This token is for packages named $token->package_name, and this is $name."],
                403,
            );
        }
        $package = $packages->take($file->getRealPath(), $name);
        $counts = array_count_values(array_column($package->findings, 'severity'));

        return response()->json([
            'id' => $package->id,
            'url' => url("/packages/$package->id"),
            'name' => $package->name,
            'version' => $package->version,
            'sha256' => $package->sha256,
            'files' => $package->files,
            'bytes' => $package->bytes,
            'can_go_live' => ! $package->stops,
            'findings' => array_map(
                static fn (Severity $severity): int => $counts[$severity->value] ?? 0,
                array_column(Severity::cases(), null, 'value'),
            ),
        ], $package->wasRecentlyCreated ? 201 : 200);
    }

    public function inspect(Request $request, ScratchInspection $inspection): JsonResponse
    {
        $file = self::file($request);
        $found = $inspection->inspect($file->getRealPath(), $file->getClientOriginalName());

        return response()->json(['ok' => ! $found->stops(), ...$found->toArray()]);
    }

    /** @throws Problem */
    private static function file(Request $request): UploadedFile
    {
        $file = $request->file('package');
        if ($file instanceof UploadedFile && $file->isValid()) {
            return $file;
        }
        throw new Problem(
            'No package has arrived. Send it as multipart/form-data in the field "package", up to '
                .ini_get('upload_max_filesize').'B.',
        );
    }
}
