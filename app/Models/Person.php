<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Foundation\Auth\User;

/** Somebody who signs in to Cellarium. */
final class Person extends User
{
    protected $table = 'people';

    protected $guarded = ['id'];

    protected $hidden = ['password', 'remember_token'];

    protected $casts = ['password' => 'hashed'];

    public function shortName(): string
    {
        $parts = explode(' ', $this->name);

        return count($parts) < 2 ? $this->name : mb_substr($parts[0], 0, 1).'. '.end($parts);
    }
}
