<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/** A dated piece of evidence for one step. */
final class Proof extends Model
{
    public const CREATED_AT = 'made_at';

    public const UPDATED_AT = null;

    protected $guarded = ['id'];

    protected $casts = ['kind' => ProofKind::class, 'ok' => 'boolean', 'made_at' => 'immutable_datetime'];

    protected $dateFormat = 'Y-m-d H:i:s.v';
}
