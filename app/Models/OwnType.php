<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/** A package type of the agency's own, as YAML. */
final class OwnType extends Model
{
    protected $table = 'package_types';

    protected $keyType = 'string';

    public $incrementing = false;

    protected $guarded = [];
}
