<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Contracts\Database\Eloquent\CastsAttributes;
use Illuminate\Database\Eloquent\Model;

/** @implements CastsAttributes<PendingChange, PendingChange> */
final class PendingChangeCast implements CastsAttributes
{
    public function get(Model $model, string $key, mixed $value, array $attributes): ?PendingChange
    {
        return is_string($value) ? PendingChange::fromJson($value) : null;
    }

    public function set(Model $model, string $key, mixed $value, array $attributes): ?string
    {
        return $value instanceof PendingChange ? $value->toJson() : null;
    }
}
