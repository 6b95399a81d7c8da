<?php

declare(strict_types=1);

namespace Cellarium\Core\Credential;

use Random\Randomizer;

/**
 * Makes passwords that can be read out over the telephone: groups of letters and digits without 0, O, 1, l and I,
 * joined by hyphens, which every FTP server and URI takes.
 */
final readonly class PasswordMaker
{
    private const ALPHABET = '23456789abcdefghijkmnpqrstuvwxyzABCDEFGHJKLMNPQRSTUVWXYZ';

    public const GROUPS = 4;

    public const GROUP_LENGTH = 4;

    public function __construct(private Randomizer $random = new Randomizer)
    {
    }

    public function make(): Secret
    {
        $groups = [];
        for ($group = 0; $group < self::GROUPS; $group++) {
            $groups[] = $this->letters();
        }

        return new Secret(implode('-', $groups));
    }

    private function letters(): string
    {
        $letters = '';
        for ($place = 0; $place < self::GROUP_LENGTH; $place++) {
            $letters .= self::ALPHABET[$this->random->getInt(0, strlen(self::ALPHABET) - 1)];
        }

        return $letters;
    }

    /** What choosing one at random is worth; exact, because the choice is even. */
    public static function bits(): int
    {
        return (int) floor(self::GROUPS * self::GROUP_LENGTH * log(strlen(self::ALPHABET), 2));
    }
}
