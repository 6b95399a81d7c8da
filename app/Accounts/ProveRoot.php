<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Errands\ErrandResult;
use App\Errands\ErrandTask;
use App\Failure\Problem;
use App\Models\Errand;
use Cellarium\Core\Path\RemotePath;

final class ProveRoot extends ErrandTask
{
    public function __construct(private readonly AccountCheck $check)
    {
    }

    public static function title(): string
    {
        return 'Proving the document root';
    }

    protected function do(Errand $errand): ErrandResult
    {
        $directory = $errand->given['directory'] ?? null;
        $step = $this->check->proveRoot(
            $errand->site ?? throw self::removed(),
            is_string($directory) ? RemotePath::fromString($directory) : null,
        );

        return $step->ok
            ? new ErrandResult("$step->sentence. $step->next")
            : throw new Problem("$step->sentence. $step->next");
    }
}
