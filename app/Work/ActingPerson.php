<?php

declare(strict_types=1);

namespace App\Work;

use App\Models\Person;
use Illuminate\Support\Facades\Auth;

/** Whoever work is done for, while it is done. */
final class ActingPerson
{
    /**
     * What is done and recorded is that person's, and they see what they may.
     *
     * @template T
     *
     * @param  Person|null  $person  null for whoever acts already
     * @param  \Closure(): T  $work
     * @return T
     */
    public static function during(?Person $person, \Closure $work): mixed
    {
        if ($person === null) {
            return $work();
        }
        $before = Person::viewer();
        Auth::setUser($person);
        try {
            return $work();
        } finally {
            $before === null ? Auth::forgetUser() : Auth::setUser($before);
        }
    }
}
