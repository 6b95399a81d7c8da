<?php

declare(strict_types=1);

namespace App\Files;

use App\Errands\ErrandResult;
use App\Errands\ErrandTask;
use App\Models\Errand;
use App\Text\Amount;

final class AskVisitors extends ErrandTask
{
    public function __construct(private readonly VisitorsAsked $visitors)
    {
    }

    public static function title(): string
    {
        return 'Asking what visitors get';
    }

    protected function do(Errand $errand): ErrandResult
    {
        $asked = $this->visitors->ask(
            FilePlace::ofErrand($errand) ?? throw self::removed(),
            $errand->given['names'] ?? [],
        );

        return new ErrandResult(Amount::files($asked).' asked for as visitors do.');
    }
}
