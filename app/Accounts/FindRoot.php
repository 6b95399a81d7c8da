<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Errands\ErrandResult;
use App\Errands\ErrandTask;
use App\Failure\Problem;
use App\Models\Errand;

final class FindRoot extends ErrandTask
{
    public function __construct(private readonly AccountCheck $check)
    {
    }

    public static function title(): string
    {
        return 'Looking for the document root';
    }

    protected function do(Errand $errand): ErrandResult
    {
        if ($this->check->findRoot($errand->site ?? throw self::removed()) === []) {
            throw new Problem(
                'No directory of this account looks like a document root. Connect and look at its directories.',
            );
        }

        return new ErrandResult('The likeliest directory comes first; prove it.');
    }
}
