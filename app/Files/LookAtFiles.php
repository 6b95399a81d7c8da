<?php

declare(strict_types=1);

namespace App\Files;

use App\Errands\ErrandResult;
use App\Errands\ErrandTask;
use App\Models\Errand;

final class LookAtFiles extends ErrandTask
{
    public function __construct(private readonly Listings $listings)
    {
    }

    public static function title(): string
    {
        return 'Looking into the folder';
    }

    protected function do(Errand $errand): ErrandResult
    {
        $this->listings->look(FilePlace::ofErrand($errand) ?? throw self::removed());

        return new ErrandResult('Looked at.');
    }
}
