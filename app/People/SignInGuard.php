<?php

declare(strict_types=1);

namespace App\People;

use App\Models\Person;
use Illuminate\Support\Facades\Cache;

/**
 * Slows guessing down, in steps: by the person who is meant, from wherever, and by the address it comes from, whoever
 * is meant.
 *
 * Counted is the person found and not the letters typed, which may be written in many ways that are looked up as one.
 * Where a person has signed in before, guesses from elsewhere keep nobody out.
 */
final readonly class SignInGuard
{
    /** Failures from which on to wait, in seconds; by person. */
    private const STEPS_FOR_PERSON = [5 => 30, 8 => 300, 12 => 3600];

    /** The same by address, behind which a whole office may sit. */
    private const STEPS_FOR_ADDRESS = [15 => 60, 30 => 600, 60 => 3600];

    private const REMEMBERED_SECONDS = 86400;

    private const KNOWN_PLACE_SECONDS = 30 * 86400;

    private function __construct(
        private string $personKey,
        private string $addressKey,
    ) {
    }

    /** @param  string  $typed  the name as it was typed, folded; counts where nobody has it */
    public static function for(?Person $person, string $typed, string $address): self
    {
        $who = $person === null ? 'nobody-'.hash('sha256', $typed) : "person-$person->id";
        $known = $person !== null && Cache::has(self::placeKey($person, $address));

        return new self($known ? "sign-in:$who:$address" : "sign-in:$who", "sign-in:from:$address");
    }

    /**
     * The form in which a name is looked up and counted: compatibility letters, full-width ones among them, become
     * plain
     * ones (Unicode NFKC), without regard to case.
     */
    public static function folded(string $typed): string
    {
        $plain = \Normalizer::normalize(mb_scrub(trim($typed)), \Normalizer::FORM_KC);

        return mb_strtolower($plain === false ? $typed : $plain);
    }

    /** Seconds to wait before the next try; 0 when one may be made now. */
    public function wait(): int
    {
        return max(
            self::left($this->personKey, self::STEPS_FOR_PERSON),
            self::left($this->addressKey, self::STEPS_FOR_ADDRESS),
        );
    }

    /** @return bool whether this failure was the one from which on to wait */
    public function failed(): bool
    {
        $byPerson = isset(self::STEPS_FOR_PERSON[self::count($this->personKey)]);
        $byAddress = isset(self::STEPS_FOR_ADDRESS[self::count($this->addressKey)]);

        return $byPerson || $byAddress;
    }

    public function succeeded(Person $person, string $address): void
    {
        Cache::forget("$this->personKey:n");
        Cache::forget("sign-in:person-$person->id:$address:n");
        Cache::put(self::placeKey($person, $address), 1, self::KNOWN_PLACE_SECONDS);
    }

    /** @param  array<int, int>  $steps */
    private static function left(string $key, array $steps): int
    {
        $failures = (int) Cache::get("$key:n", 0);
        $wait = 0;
        foreach ($steps as $from => $seconds) {
            $wait = $failures >= $from ? $seconds : $wait;
        }

        return $wait === 0 ? 0 : max(0, (int) Cache::get("$key:at", 0) + $wait - now()->getTimestamp());
    }

    private static function count(string $key): int
    {
        Cache::add("$key:n", 0, self::REMEMBERED_SECONDS);
        Cache::put("$key:at", now()->getTimestamp(), self::REMEMBERED_SECONDS);

        return (int) Cache::increment("$key:n");
    }

    private static function placeKey(Person $person, string $address): string
    {
        return "sign-in:place:$person->id:$address";
    }
}
