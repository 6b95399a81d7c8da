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
 * A try counts as a wrong one from when it is made, so that of many at once no more are let through than one after the
 * other; what was right is taken back. Where a person has signed in before, and on a device they have signed in with,
 * guesses from elsewhere keep nobody out; nor do those of others at the same address, on that device.
 */
final class SignInGuard
{
    /** What a device shows that somebody has signed in with before; it opens nothing by itself. */
    public const DEVICE = 'cellarium_device';

    public const DEVICE_DAYS = 180;

    /** Failures from which on to wait, in seconds; by person. */
    private const STEPS_FOR_PERSON = [5 => 30, 8 => 300, 12 => 3600];

    /** The same by address, behind which a whole office may sit. */
    private const STEPS_FOR_ADDRESS = [15 => 60, 30 => 600, 60 => 3600];

    private const REMEMBERED_SECONDS = 86400;

    private const KNOWN_PLACE_SECONDS = 30 * 86400;

    /** So long one of many at once waits for its turn to be counted. */
    private const TURN_SECONDS = 20;

    /** How often it was wrong with this try, by the two keys. */
    private int $byPerson = 0;

    private int $byAddress = 0;

    /** @var array<string, int> when it was wrong before this try, by key, in seconds since 1970 */
    private array $lastBefore = [];

    private function __construct(
        private readonly string $personKey,
        private readonly ?string $addressKey,
    ) {
    }

    /**
     * @param  string  $typed  the name as it was typed, folded; counts where nobody has it
     * @param  string|null  $device  what the browser shows of an earlier sign-in
     */
    public static function for(
        ?Person $person,
        string $typed,
        string $address,
        ?string $device = null,
    ): self {
        $who = $person === null ? 'nobody-'.hash('sha256', $typed) : "person-$person->id";
        $isKnownDevice = $person !== null && $device !== null && Cache::has(self::deviceKey($person, $device));
        $known = $person !== null && Cache::has(self::placeKey($person, $address));

        return match (true) {
            $isKnownDevice => new self("sign-in:$who:device:".hash('sha256', (string) $device), null),
            $known => new self("sign-in:$who:$address", "sign-in:from:$address"),
            default => new self("sign-in:$who", "sign-in:from:$address"),
        };
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

    /**
     * @return int seconds to wait before the next try; 0 when this one may be made, which counts as wrong from now on
     */
    public function take(): int
    {
        return Cache::lock("$this->personKey:turn", self::TURN_SECONDS)->block(self::TURN_SECONDS, function (): int {
            $wait = max(
                self::left($this->personKey, self::STEPS_FOR_PERSON),
                $this->addressKey === null ? 0 : self::left($this->addressKey, self::STEPS_FOR_ADDRESS),
            );
            if ($wait === 0) {
                $this->byPerson = $this->count($this->personKey);
                $this->byAddress = $this->addressKey === null ? 0 : $this->count($this->addressKey);
            }

            return $wait;
        });
    }

    /** Whether this one, which was wrong, was the one from which on to wait. */
    public function blocks(): bool
    {
        return isset(self::STEPS_FOR_PERSON[$this->byPerson]) || isset(self::STEPS_FOR_ADDRESS[$this->byAddress]);
    }

    /** It was right, and something more is asked for: it counts as none. */
    public function takeBack(): void
    {
        foreach (array_filter([$this->personKey, $this->addressKey]) as $key) {
            (int) Cache::get("$key:n", 0) > 0 && Cache::decrement("$key:n");
            Cache::put("$key:at", $this->lastBefore[$key] ?? 0, self::REMEMBERED_SECONDS);
        }
    }

    /** @return string what the device shows from now on */
    public function succeeded(Person $person, string $address, ?string $device = null): string
    {
        $this->takeBack();
        Cache::forget("$this->personKey:n");
        Cache::forget("sign-in:person-$person->id:$address:n");
        Cache::put(self::placeKey($person, $address), 1, self::KNOWN_PLACE_SECONDS);
        $isOne = preg_match('/\A[0-9a-f]{64}\z/', (string) $device) === 1;
        $device = $isOne ? (string) $device : bin2hex(random_bytes(32));
        Cache::put(self::deviceKey($person, $device), 1, self::DEVICE_DAYS * 86400);

        return $device;
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

    private function count(string $key): int
    {
        $this->lastBefore[$key] = (int) Cache::get("$key:at", 0);
        Cache::add("$key:n", 0, self::REMEMBERED_SECONDS);
        Cache::put("$key:at", now()->getTimestamp(), self::REMEMBERED_SECONDS);

        return (int) Cache::increment("$key:n");
    }

    private static function deviceKey(Person $person, string $device): string
    {
        return "sign-in:device:$person->id:".hash('sha256', $device);
    }

    private static function placeKey(Person $person, string $address): string
    {
        return "sign-in:place:$person->id:$address";
    }
}
