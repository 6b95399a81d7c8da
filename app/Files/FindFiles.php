<?php

declare(strict_types=1);

namespace App\Files;

use App\Errands\ErrandResult;
use App\Errands\ErrandTask;
use App\Models\Errand;
use Cellarium\Core\Transfer\Cancelled;
use Cellarium\Core\Work\Urgency;

final class FindFiles extends ErrandTask
{
    public function __construct(private readonly RemoteFileSearch $files)
    {
    }

    public static function title(): string
    {
        return 'Looking for files';
    }

    public static function urgency(): Urgency
    {
        return Urgency::Look;
    }

    protected function do(Errand $errand): ?ErrandResult
    {
        $search = FileSearch::begun($errand);
        try {
            $this->files->find(
                FilePlace::ofErrand($errand) ?? throw self::removed(),
                FileSearch::query($errand),
                $search->hear(...),
            );
        } catch (Cancelled) {
            return null;
        } finally {
            // Also of one that did not come to its end: what was found until then was found.
            $search->keepLast();
        }

        return new ErrandResult('Looked through.');
    }
}
