<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Models\Site;
use App\Work\RecoversForgotten;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;

/**
 * Tokens that a proof of a document root which was broken off left at sites.
 *
 * @implements RecoversForgotten<Site>
 */
final readonly class LeftToken implements RecoversForgotten
{
    public function __construct(private AccountCheck $check)
    {
    }

    public function forgotten(\DateTimeInterface $since): Builder
    {
        return Site::with('account')->whereNotNull('token')->where('updated_at', '<=', $since);
    }

    public function takeUp(Model $row): bool
    {
        $this->check->removeToken($row);

        return false;
    }
}
