<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/** A fault in what is stored; one of each kind, until it is right again. */
final class Alarm extends Model
{
    protected $guarded = ['id'];

    protected $casts = ['kind' => AlarmKind::class];

    /** @return bool whether it is new, or says something else than before */
    public static function raise(AlarmKind $kind, string $words): bool
    {
        $alarm = self::updateOrCreate(['kind' => $kind], ['words' => $words]);

        return $alarm->wasRecentlyCreated || $alarm->wasChanged('words');
    }

    public static function end(AlarmKind $kind): void
    {
        self::where('kind', $kind)->delete();
    }
}
