<?php

declare(strict_types=1);

namespace App\Files;

use App\Errands\ErrandResult;
use App\Errands\ErrandTask;
use App\Failure\Problem;
use App\Models\ChangeByHand;
use App\Models\ChangeState;
use App\Models\Errand;

final class ChangeFiles extends ErrandTask
{
    public function __construct(private readonly CarryOutByHand $byHand)
    {
    }

    public static function title(): string
    {
        return 'Changing files';
    }

    public static function onlyLooks(): bool
    {
        return false;
    }

    public static function change(Errand $errand): ?ChangeByHand
    {
        return ChangeByHand::with('account.sites', 'site.account.client', 'person')
            ->find((int) ($errand->given['change'] ?? 0));
    }

    /**
     * @return string that it is done, in words
     *
     * @throws Problem where it is not
     */
    public function done(ChangeByHand $change): string
    {
        $change = $this->byHand->carryOut($change);

        return $change->state === ChangeState::Done
            ? "$change->title: done, and confirmed by the server."
            : throw new Problem("$change->title: {$change->state->label()}. $change->trouble");
    }

    protected function do(Errand $errand): ErrandResult
    {
        return new ErrandResult($this->done(self::change($errand) ?? throw self::removed()));
    }
}
