<?php

declare(strict_types=1);

namespace App\Removal;

use App\Errands\ErrandResult;
use App\Errands\ErrandTask;
use App\Models\Errand;

final class Remove extends ErrandTask
{
    public function __construct(private readonly Removal $removal)
    {
    }

    public static function title(): string
    {
        return 'Closing FTP users, then removing from Cellarium';
    }

    public static function onlyLooks(): bool
    {
        return false;
    }

    protected function do(Errand $errand): ErrandResult
    {
        $subject = $errand->site ?? $errand->account ?? $errand->client ?? throw self::removed();
        $keep = (int) ($errand->given['keep'] ?? 0);
        $this->removal->remove(
            $subject,
            array_map(intval(...), $errand->given['close'] ?? []),
            array_map(intval(...), $errand->given['leave'] ?? []),
            $keep === 0 ? null : $keep,
            $errand->person,
        );

        return new ErrandResult(ucfirst(RemovalImpact::name($subject)).' is removed from Cellarium.');
    }
}
