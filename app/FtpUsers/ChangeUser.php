<?php

declare(strict_types=1);

namespace App\FtpUsers;

use App\Errands\ErrandResult;
use App\Errands\ErrandTask;
use App\Models\Errand;

final class ChangeUser extends ErrandTask
{
    public function __construct(private readonly FtpUserOrders $orders)
    {
    }

    public static function title(): string
    {
        return 'Asking the host about the FTP user';
    }

    public static function onlyLooks(): bool
    {
        return false;
    }

    protected function do(Errand $errand): ErrandResult
    {
        $user = $errand->ftpUser ?? throw self::removed();
        $this->orders->change($user, $errand->given);

        return new ErrandResult("The host was asked about $user->login.");
    }
}
