<?php

declare(strict_types=1);

namespace Cellarium\Core\Hosting;

use Cellarium\Core\Json\JsonFields;

/** A host's rules for the names of FTP users, and the logins it makes of them. */
final readonly class LoginRules
{
    /**
     * @param  string  $form  the full login, "{name}@site.example", with {name} in it once
     * @param  string  $signs  as in a character class, "a-z0-9._-"
     * @param  int  $longest  characters of the name alone
     * @param  int|null  $most  FTP users in the account
     * @param  bool  $readOnly  whether users that may only read can be made
     */
    private function __construct(
        public string $form,
        public string $signs,
        public int $longest,
        public ?int $most,
        public bool $readOnly,
    ) {
    }

    /** @throws \InvalidArgumentException in words for the person who typed it */
    public static function fromForm(
        string $form,
        string $signs = 'a-z0-9._-',
        int $longest = 32,
        ?int $most = null,
        bool $readOnly = false,
    ): self {
        if (
            substr_count($form, '{name}') !== 1
            || preg_match('/[\s\x00-\x1f\x7f]/', $form) === 1
            || strlen($form) > 200
        ) {
            throw new \InvalidArgumentException(
                'The form of a login has {name} in it once and no blanks, "{name}@site.example" say.',
            );
        }
        // Only these: whatever a host sends becomes part of a pattern.
        if (
            preg_match('/\A(?:[a-zA-Z0-9]-[a-zA-Z0-9]|[a-zA-Z0-9._@+])*-?\z/', $signs) !== 1
            || $signs === ''
            || $longest < 1
        ) {
            throw new \InvalidArgumentException(
                'The signs of a login are letters, digits and . _ @ + -, with ranges such as a-z.',
            );
        }

        return new self($form, $signs, min($longest, 100), $most, $readOnly);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'login' => $this->form,
            'signs' => $this->signs,
            'longest' => $this->longest,
            'most' => $this->most,
            'read_only' => $this->readOnly,
        ];
    }

    /** @throws \UnexpectedValueException|\InvalidArgumentException */
    public static function fromFields(JsonFields $fields): self
    {
        return self::fromForm(
            $fields->text('login'),
            $fields->text('signs'),
            $fields->number('longest'),
            $fields->numberOrNull('most'),
            $fields->flag('read_only'),
        );
    }

    public function full(string $name): string
    {
        return str_replace('{name}', $name, $this->form);
    }

    /** The name inside a full login; the login itself where it has another form. */
    public function nameIn(string $login): string
    {
        [$before, $after] = explode('{name}', $this->form);
        $fits = str_starts_with($login, $before)
            && str_ends_with($login, $after)
            && strlen($login) > strlen($before) + strlen($after);

        return $fits ? substr($login, strlen($before), strlen($login) - strlen($before) - strlen($after)) : $login;
    }

    /**
     * Why a name cannot be taken, in a sentence; null when it can.
     *
     * @param  list<string>  $taken  full logins
     */
    public function objection(string $name, array $taken): ?string
    {
        $full = $this->full($name);
        $same = array_filter($taken, static fn (string $login): bool => strcasecmp($login, $full) === 0);

        return match (true) {
            $name === '' => 'A login needs a name.',
            $name !== trim($name) => 'There is a blank at its beginning or end.',
            preg_match("/[^$this->signs]/u", $name) === 1 => 'This host takes '.$this->words().' only.',
            preg_match('/\A[a-zA-Z0-9]/', $name) !== 1 => 'It begins with a letter or a digit.',
            strlen($name) > $this->longest => 'It has '.strlen($name)." characters; this host takes $this->longest.",
            $same !== [] => "$full exists already.",
            $this->most !== null && count($taken) >= $this->most => 'This account '
                ."has $this->most FTP users, and the host makes no more. Remove one that is closed.",
            default => null,
        };
    }

    /** "a to z, 0 to 9 and . _ -" */
    private function words(): string
    {
        preg_match_all('/[a-zA-Z0-9]-[a-zA-Z0-9]/', $this->signs, $ranges);
        $others = (string) preg_replace('/[a-zA-Z0-9]-[a-zA-Z0-9]/', '', $this->signs);
        $words = array_map(static fn (string $range): string => "$range[0] to $range[2]", $ranges[0]);

        return implode(', ', $words).($others === '' ? '' : ' and '.implode(' ', str_split($others)));
    }
}
