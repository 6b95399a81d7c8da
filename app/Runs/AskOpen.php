<?php

declare(strict_types=1);

namespace App\Runs;

use App\Errands\ErrandResult;
use App\Errands\ErrandTask;
use App\Models\Errand;

final class AskOpen extends ErrandTask
{
    public function __construct(private readonly OpenAddresses $addresses)
    {
    }

    public static function title(): string
    {
        return 'Asking what answers everybody';
    }

    protected function do(Errand $errand): ErrandResult
    {
        return new ErrandResult(match ($open = $this->addresses->askAgain($errand->site ?? throw self::removed())) {
            0 => 'None of them answers visitors any more.',
            1 => 'One address answers everybody still.',
            default => "$open addresses answer everybody still.",
        });
    }
}
