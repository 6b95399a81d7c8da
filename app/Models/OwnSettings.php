<?php

declare(strict_types=1);

namespace App\Models;

/** A person's own settings: how times are shown, which colours, what comes by e-mail. */
final readonly class OwnSettings
{
    public const SCHEMES = ['system', 'light', 'dark'];

    /** Which concerns come by e-mail. */
    public const MAIL = ['none', 'now', 'all', 'chosen'];

    /**
     * @param  string  $timeZone  of the IANA time zone database; "" for that of the application
     * @param  string  $scheme  one of SCHEMES
     * @param  string  $mail  one of MAIL
     * @param  list<string>  $kinds  of concerns, where they were chosen one by one
     */
    public function __construct(
        public string $timeZone = '',
        public bool $twentyFourHours = true,
        public string $scheme = 'system',
        public string $mail = 'none',
        public array $kinds = [],
    ) {
    }

    /** @param  array<string, mixed>  $values  what is missing or unknown is as it is for everybody */
    public static function fromArray(array $values): self
    {
        $zone = is_string($values['time_zone'] ?? null) ? $values['time_zone'] : '';
        $scheme = $values['scheme'] ?? '';
        $mail = $values['mail'] ?? '';

        return new self(
            in_array($zone, \DateTimeZone::listIdentifiers(), true) ? $zone : '',
            ($values['twenty_four_hours'] ?? true) !== false,
            in_array($scheme, self::SCHEMES, true) ? $scheme : 'system',
            in_array($mail, self::MAIL, true) ? $mail : 'none',
            array_values(array_filter((array) ($values['kinds'] ?? []), is_string(...))),
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'time_zone' => $this->timeZone,
            'twenty_four_hours' => $this->twentyFourHours,
            'scheme' => $this->scheme,
            'mail' => $this->mail,
            'kinds' => $this->kinds,
        ];
    }
}
