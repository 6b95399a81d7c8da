<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/** Where a person was last among the files of a site or an account, and in which order they looked at them. */
final class FilesRemembered extends Model
{
    public $timestamps = false;

    protected $table = 'files_remembered';

    protected $guarded = ['id'];

    protected $casts = ['down' => 'boolean', 'hidden' => 'boolean'];

    /** @param  string  $owner  the page of whose files these are */
    public static function of(Person $person, string $owner): ?self
    {
        return self::where(['person_id' => $person->id, 'owner' => $owner])->first();
    }
}
