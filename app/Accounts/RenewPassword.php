<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Errands\ErrandResult;
use App\Errands\ErrandTask;
use App\Models\Errand;

final class RenewPassword extends ErrandTask
{
    public function __construct(private readonly PasswordRenewal $renewal)
    {
    }

    public static function title(): string
    {
        return 'Renewing the password';
    }

    public static function onlyLooks(): bool
    {
        return false;
    }

    protected function do(Errand $errand): ErrandResult
    {
        $this->renewal->renew($errand->account ?? throw self::removed());

        return new ErrandResult('The password is renewed at the host and here, and proven by signing in with it.');
    }
}
