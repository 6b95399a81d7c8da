<?php

declare(strict_types=1);

namespace App\FtpUsers;

use App\Errands\ErrandResult;
use App\Errands\ErrandTask;
use App\Models\Errand;
use App\Models\FtpUser;

/** A new FTP user; where it is refused, the form is shown again as it was typed, see NewFtpUserForm. */
final class MakeUser extends ErrandTask
{
    public function __construct(private readonly FtpUserOrders $orders)
    {
    }

    public static function title(): string
    {
        return 'Making the FTP user';
    }

    public static function onlyLooks(): bool
    {
        return false;
    }

    protected function do(Errand $errand): ErrandResult
    {
        $account = $errand->account ?? throw self::removed();
        $made = $this->orders->make($account, (array) ($errand->given['typed'] ?? []), $errand->person);

        return $made instanceof FtpUser
            ? new ErrandResult("$made->login is asked for.", "/ftp-users/$made->id", isForgotten: true)
            : new ErrandResult(
                implode(' ', $made),
                "/accounts/$account->id/ftp-users/new?refused=$errand->id",
                ['wrong' => $made],
                isRefused: true,
            );
    }
}
