<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/** The directory of a site or an account that a person was in last, and the order they looked at it in. */
final class FilesRemembered extends Model
{
    public $timestamps = false;

    protected $table = 'files_remembered';

    protected $guarded = ['id'];

    protected $casts = ['down' => 'boolean', 'hidden' => 'boolean'];

    /** @param  string  $owner  the page of whose files these are */
    public static function forPerson(Person $person, string $owner): ?self
    {
        return self::where(['person_id' => $person->id, 'owner' => $owner])->first();
    }
}
