<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Errands\ErrandResult;
use App\Errands\ErrandTask;
use App\Failure\Problem;
use App\Models\Errand;

final class AskPhp extends ErrandTask
{
    public function __construct(private readonly SitePhp $php)
    {
    }

    public static function title(): string
    {
        return 'Asking which PHP the site runs';
    }

    protected function do(Errand $errand): ErrandResult
    {
        $site = $errand->site ?? throw self::removed();
        $answer = $this->php->ask($site);
        $sentence = SitePhp::sentence($site, $answer).'.';

        return $answer->trouble === null ? new ErrandResult($sentence) : throw new Problem($sentence);
    }
}
