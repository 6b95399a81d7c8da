<?php

declare(strict_types=1);

namespace App\People;

use App\Models\Person;
use Illuminate\Contracts\Session\Session;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\DB;

/**
 * Ties a session to its person's password and second factor: whoever changes one of these ends all other sessions, and
 * a session that was copied is worth little.
 */
final readonly class SessionBond
{
    /** For so long after signing in, secrets are shown and people changed without signing in anew. */
    public const FRESH_MINUTES = 15;

    private const BOND = 'bond';

    private const FRESH_AT = 'fresh_at';

    private const SINCE = 'signed_in_at';

    public function __construct(private Session $session)
    {
    }

    /** Signs somebody in, under a session identifier that nobody has seen before. */
    public function begin(Person $person): void
    {
        Auth::login($person);
        $this->session->regenerate(true);
        $this->session->put(self::values($person));
    }

    /** @return array<string, mixed> what a session holds right after signing in */
    public static function values(Person $person): array
    {
        $now = now()->getTimestamp();

        return [self::BOND => self::of($person), self::FRESH_AT => $now, self::SINCE => $now];
    }

    /** After signing in anew, and after what a session is bound to was changed in it: it goes on, all others end. */
    public function freshen(Person $person): void
    {
        $this->session->regenerate(true);
        $this->session->put(self::BOND, self::of($person));
        $this->session->put(self::FRESH_AT, now()->getTimestamp());
    }

    /** Null while the session may go on; else the reason why it ends, in a sentence. */
    public function ends(Person $person): ?string
    {
        $hours = max(1, (int) config('cellarium.session_hours'));

        return match (true) {
            $person->isKeptOut() => 'Your sign-in was closed by a maintainer. Ask one to open it again.',
            ! hash_equals(self::of($person), (string) $this->session->get(self::BOND, '')) => 'Your password or '
                .'second factor was changed elsewhere, so this session has ended. Sign in with the new one.',
            now()->getTimestamp() - (int) $this->session->get(self::SINCE, 0) > $hours * 3600 => 'You have been '
                ."signed in for $hours hours. Sign in anew to go on.",
            default => null,
        };
    }

    public function isFresh(): bool
    {
        return now()->getTimestamp() - (int) $this->session->get(self::FRESH_AT, 0) < self::FRESH_MINUTES * 60;
    }

    /** Ends all sessions of somebody at once, on whatever machine. */
    public static function endAll(Person $person, ?string $except = null): int
    {
        return DB::table('sessions')
            ->where('user_id', $person->id)
            ->when($except !== null, static fn ($rows) => $rows->where('id', '!=', $except))
            ->delete();
    }

    private static function of(Person $person): string
    {
        return hash_hmac(
            'sha256',
            "$person->id\n$person->password\n$person->second_factor",
            (string) config('app.key'),
        );
    }
}
