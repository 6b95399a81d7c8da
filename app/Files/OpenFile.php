<?php

declare(strict_types=1);

namespace App\Files;

use App\Errands\ErrandResult;
use App\Errands\ErrandTask;
use App\Models\Errand;
use App\Models\FileDraft;

final class OpenFile extends ErrandTask
{
    public function __construct(private readonly TextEditing $editing)
    {
    }

    public static function title(): string
    {
        return 'Opening the file';
    }

    protected function do(Errand $errand): ErrandResult
    {
        $draft = FileDraft::with('account.sites')->find((int) ($errand->given['draft'] ?? 0)) ?? throw self::removed();
        $this->editing->open($draft);

        return new ErrandResult('Opened.');
    }
}
