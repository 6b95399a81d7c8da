<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Contracts\Database\Eloquent\CastsAttributes;
use Illuminate\Database\Eloquent\Model;

/** @implements CastsAttributes<OwnSettings, OwnSettings> */
final class OwnSettingsCast implements CastsAttributes
{
    public function get(Model $model, string $key, mixed $value, array $attributes): OwnSettings
    {
        $values = is_string($value) ? json_decode($value, true) : null;

        return OwnSettings::fromArray(is_array($values) ? $values : []);
    }

    public function set(Model $model, string $key, mixed $value, array $attributes): string
    {
        return json_encode($value instanceof OwnSettings ? $value->toArray() : [], JSON_THROW_ON_ERROR);
    }
}
