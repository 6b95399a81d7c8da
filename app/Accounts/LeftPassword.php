<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Models\Account;
use App\Work\RecoversForgotten;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;

/**
 * Renewed passwords of which it is not known whether the host took them.
 *
 * @implements RecoversForgotten<Account>
 */
final readonly class LeftPassword implements RecoversForgotten
{
    public function __construct(private PasswordRenewal $renewal)
    {
    }

    public function forgotten(\DateTimeInterface $since): Builder
    {
        return Account::with('client', 'sites')
            ->whereNotNull('next_secret')
            ->whereNull('trouble')
            ->where('updated_at', '<=', $since);
    }

    public function takeUp(Model $row): bool
    {
        $this->renewal->settleLeft($row);

        return false;
    }
}
