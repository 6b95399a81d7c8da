<?php

declare(strict_types=1);

namespace App\Moves;

use App\Errands\ErrandResult;
use App\Errands\ErrandTask;
use App\Failure\Problem;
use App\Models\Account;
use App\Models\Errand;
use Cellarium\Core\Words\Count;
use Cellarium\Core\Work\Urgency;

final class MoveAccount extends ErrandTask
{
    public function __construct(private readonly AccountMover $mover)
    {
    }

    public static function title(): string
    {
        return 'Making the account anew at the other host';
    }

    public static function onlyLooks(): bool
    {
        return false;
    }

    public static function urgency(): Urgency
    {
        return Urgency::Look;
    }

    protected function do(Errand $errand): ErrandResult
    {
        $given = $errand->given;
        $account = static fn (int $id): Account => Account::with('client', 'sites.destinations', 'ftpUsers')->find($id)
            ?? throw self::removed();
        $done = $this->mover->carryOut(
            new AccountMove(
                $account((int) $errand->account_id),
                $account((int) ($given['to'] ?? 0)),
                $given['directories'] ?? [],
            ),
            $given['sites'] ?? [],
            $given['users'] ?? [],
            $errand->person,
        );

        $words = 'There now: '.Count::words($done['sites'], 'site').', '.Count::words($done['users'], 'FTP user').'.'
            .($done['waits'] === 0
                ? ''
                : ' To be made by you at the provider: '.Count::words($done['waits'], 'FTP user').'.');

        return $done['troubles'] === []
            ? new ErrandResult("$words The files of the sites wait below as plans.")
            : throw new Problem($words.' '.implode(' ', $done['troubles']));
    }
}
