<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/** One person's way of looking at the accounts: filters and order, under a name. */
final class SavedView extends Model
{
    use OfPerson;

    protected $guarded = ['id'];
}
