<?php

declare(strict_types=1);

namespace App\People;

use App\Models\Person;
use App\Record\Record;
use Illuminate\Mail\Message;
use Illuminate\Support\Facades\Context;
use Illuminate\Support\Facades\Mail;

/** Tells somebody by e-mail that the way they sign in was changed, so that a change that was not theirs is noticed. */
final class SignInNotice
{
    /** @param  string  $what  a sentence; never a secret */
    public static function send(Person $person, string $what): void
    {
        $from = Context::get(Record::ADDRESS);
        $text = "$what\n\nWhen: ".now()->format('j M Y H:i e').($from === null ? '' : "\nFrom: $from")
            ."\n\nIf that was neither you nor a maintainer for you, tell a maintainer now.\n"
            .rtrim((string) config('app.url'), '/')."/\n";
        // A mail server that is away must not keep anybody from changing a password; the record tells of it too.
        rescue(static fn () => Mail::raw($text, static function (Message $message) use ($person): void {
            $message->to($person->email, $person->name)->subject('How you sign in to Cellarium was changed');
        }));
    }
}
