<?php

declare(strict_types=1);

namespace App\People;

use App\Models\Person;
use Cellarium\Core\Credential\PasswordStrength;

/** The rule for passwords, and the hash of one that is tried in nobody's name. */
final readonly class Passwords
{
    public const MINIMUM_LENGTH = 12;

    public const MAXIMUM_LENGTH = 128;

    public function __construct(private PasswordStrength $strength)
    {
    }

    /** @return string|null what is wrong with it, and what would do */
    public function objection(Person $person, #[\SensitiveParameter] string $password): ?string
    {
        $known = [$person->name, $person->email, ...explode(' ', $person->name), 'cellarium'];

        return match (true) {
            mb_strlen($password) < self::MINIMUM_LENGTH => 'A password has '.self::MINIMUM_LENGTH
                .' characters or more: three or four words that do not belong together are easy to keep in mind.',
            mb_strlen($password) > self::MAXIMUM_LENGTH => 'A password has '.self::MAXIMUM_LENGTH
                .' characters at the most.',
            $this->strength->bits($password, $known) < PasswordStrength::MINIMUM_BITS => 'It is too easy to guess: '
                .'it is made of common words, of your name, or repeats itself. Take words that do not belong together.',
            default => null,
        };
    }
}
