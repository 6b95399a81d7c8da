<?php

declare(strict_types=1);

namespace App\Packages;

use App\Errands\ErrandResult;
use App\Errands\ErrandTask;
use App\Models\Errand;
use App\Models\Upload;

final class TakePackage extends ErrandTask
{
    public function __construct(private readonly Uploads $uploads)
    {
    }

    public static function title(): string
    {
        return 'Checking the package';
    }

    public static function waitsFor(): string
    {
        return 'All of it has arrived. It is hashed, unpacked and looked through; a large one takes a minute or two.';
    }

    protected function do(Errand $errand): ErrandResult
    {
        $package = $this->uploads->finish(Upload::find((int) ($errand->given['upload'] ?? 0)) ?? throw self::removed());
        $site = (int) ($errand->given['site'] ?? 0);

        return new ErrandResult(
            "{$package->title()} is received and verified: SHA-256 ".substr($package->sha256, 0, 12).'…',
            "/packages/$package->id".($site > 0 ? "?site=$site" : ''),
        );
    }
}
