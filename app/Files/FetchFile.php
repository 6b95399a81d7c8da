<?php

declare(strict_types=1);

namespace App\Files;

use App\Errands\ErrandResult;
use App\Errands\ErrandTask;
use App\Models\Errand;
use Cellarium\Core\Path\RemotePath;

/** The page that it was fetched for shows it, see FetchedFile. */
final class FetchFile extends ErrandTask
{
    public function __construct(private readonly FileFetch $files)
    {
    }

    public static function title(): string
    {
        return 'Fetching the file';
    }

    protected function do(Errand $errand): ErrandResult
    {
        $given = $errand->given;

        return new ErrandResult('', result: $this->files->fetch(
            $errand->account ?? throw self::removed(),
            RemotePath::fromString((string) ($given['path'] ?? '/')),
            (int) ($given['most'] ?? 0),
            (bool) ($given['text'] ?? true),
        ));
    }
}
