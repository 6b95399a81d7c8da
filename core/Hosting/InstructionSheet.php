<?php

declare(strict_types=1);

namespace Cellarium\Core\Hosting;

use Cellarium\Core\Credential\Secret;

/**
 * Instructions for a provider's web pages, where a host cannot be asked by a program: each field with what goes into
 * it.
 */
final readonly class InstructionSheet
{
    /**
     * @param  list<string>  $steps  in the order they are done
     * @param  array<string, string>  $fields  what to type or choose, by what the field is commonly called
     * @param  Secret|null  $password  to be typed in beside them
     */
    private function __construct(
        public string $title,
        public array $steps,
        public array $fields,
        public ?Secret $password = null,
    ) {
    }

    /** @param  int|null  $spaceLimit  bytes */
    public static function create(
        string $company,
        string $name,
        string $full,
        Secret $password,
        string $directory,
        ?int $spaceLimit,
        bool $readOnly,
    ): self {
        return new self(
            "Create $full",
            [
                'Sign in at '
                .self::at($company)
                .' and open its page for FTP users (also called FTP accounts or logins).',
                'Make a new one and fill in what stands below, to the letter. Where the page puts something before or '
                    .'behind the name by itself, leave that to it.',
                'If it offers to make the directory, say no: the directory is there already.',
                'Then come back and prove it.',
            ],
            ['Name' => $name, 'Full login, to compare' => $full, 'Directory' => $directory] + [
                'Space limit' => self::space($spaceLimit),
            ]
                + ($readOnly ? ['Permissions' => 'read only'] : []),
            $password,
        );
    }

    public static function renew(string $company, string $full, Secret $password): self
    {
        return new self(
            "Give $full another password",
            [
                'Sign in at '.self::at($company)." and open $full on its page for FTP users.",
                'Set the password below and save.',
                'Then come back and prove it.',
            ],
            ['Login' => $full],
            $password,
        );
    }

    public static function change(
        string $company,
        string $full,
        ?string $directory,
        bool $setsSpace,
        ?int $spaceLimit,
    ): self {
        return new self(
            "Change $full",
            [
                'Sign in at '.self::at($company)." and open $full on its page for FTP users.",
                'Set what stands below and save; leave everything else as it is.',
                'Then come back and prove it.',
            ],
            ($directory === null ? [] : ['Directory' => $directory])
                + ($setsSpace ? ['Space limit' => self::space($spaceLimit)] : []),
        );
    }

    public static function close(string $company, string $full): self
    {
        return new self(
            "Close $full",
            [
                'Sign in at '.self::at($company)." and open $full on its page for FTP users.",
                'Lock it, or remove it where it cannot be locked.',
                'Then come back and prove it: Cellarium tries to sign in and has to be refused.',
            ],
            ['Login' => $full],
        );
    }

    public static function reopen(string $company, string $full, Secret $password): self
    {
        return new self(
            "Open $full again",
            [
                'Sign in at '.self::at($company)." and open $full on its page for FTP users.",
                'Unlock it and set the password below.',
                'Then come back and prove it.',
            ],
            ['Login' => $full],
            $password,
        );
    }

    public static function remove(string $company, string $full): self
    {
        return new self(
            "Remove $full",
            [
                'Sign in at '.self::at($company).' and open its page for FTP users.',
                "Remove $full. Its files stay.",
                'Then come back and prove it: Cellarium tries to sign in and has to be refused.',
            ],
            ['Login' => $full],
        );
    }

    private static function at(string $company): string
    {
        return $company === '' ? 'the provider' : $company;
    }

    private static function space(?int $bytes): string
    {
        return $bytes === null ? 'none' : intdiv($bytes, 1_000_000).' MB';
    }
}
