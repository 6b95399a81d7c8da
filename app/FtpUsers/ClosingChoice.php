<?php

declare(strict_types=1);

namespace App\FtpUsers;

use App\Models\Closing;
use App\Text\When;
use Carbon\CarbonImmutable;

/** The end chosen for an FTP user: at a time, with its job, or never and why. */
final readonly class ClosingChoice
{
    private const LONGEST_REASON = 200;

    private function __construct(
        public Closing $kind,
        public ?CarbonImmutable $at,
        public string $reason,
    ) {
    }

    /**
     * @param  string  $chosen  a value of Closing
     * @param  string  $closes  as a form field of a day and a time has it
     * @return self|array{string, string} the field that is wrong and a sentence about it
     */
    public static function typed(string $chosen, string $closes, string $reason): self|array
    {
        $kind = Closing::tryFrom($chosen);
        $at = $kind === Closing::AtTime ? When::typed($closes) : null;
        $reason = mb_substr(trim($reason), 0, self::LONGEST_REASON);

        return match (true) {
            $kind === null => ['ends', 'Choose when it closes.'],
            $kind === Closing::AtTime && $at === null => ['closes', 'Give a day and a time.'],
            $at !== null && $at->isPast() => ['closes', 'The closing time lies in the past.'],
            $kind === Closing::Never && $reason === '' => [
                'reason',
                'Say why it never closes; the next person will ask.',
            ],
            default => new self($kind, $at, $kind === Closing::Never ? $reason : ''),
        };
    }
}
