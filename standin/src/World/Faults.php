<?php

declare(strict_types=1);

namespace Cellarium\Standin\World;

use InvalidArgumentException;

/**
 * Faults made for one account; all off by default.
 *
 * Bytes count payload over data connections of one session, commands count control lines of one session.
 */
final readonly class Faults
{
    /**
     * @param  bool  $refuse  every new connection is answered 421 once the login is known
     * @param  int  $delayMs  milliseconds waited before each reply
     * @param  int|null  $dropAfterBytes  the control connection is cut after this many payload bytes
     * @param  int|null  $dropAfterCommands  the control connection is cut after this many commands
     * @param  int|null  $fullAtBytes  the account is full at this many bytes, whatever its limit says
     * @param  bool  $lie  an upload stores only its first half, and 226 is answered all the same
     * @param  int|null  $closeDataAfter  each data connection is closed after this many bytes
     * @param  bool  $hang  commands after the sign-in get no answer at all
     * @param  string|null  $listing  "unix" or "dos": the server knows LIST in this style and no MLSD or MLST
     * @param  bool  $demandTls  the login is not let in without TLS
     * @param  string|null  $passiveAddress  IPv4 address that PASV names instead of the right one; EPSV is then not
     *     known
     * @param  bool  $landHome  FTP users land in the account's home, whatever directory they were made for
     * @param  bool  $noJail  FTP users land where they should and are kept nowhere: all of the account is theirs
     * @param  bool  $moreThanAsked  FTP users get no space limit and may write, whatever was asked
     * @param  int  $closeLate  seconds for which a closed FTP user is still let in
     * @param  bool  $closeNever  a closed FTP user is still let in, for good
     * @param  int  $controlDelayMs  milliseconds between doing what the control service is asked and answering
     * @param  bool  $loseAnswer  the control service does what was asked and closes without an answer
     * @param  bool  $claim  listings show the size that was sent, however much was kept
     * @param  bool  $alter  an upload keeps its length and has other bytes
     * @param  string|null  $listingFault  "cut": listings end inside their last line, and 226 is answered; "empty":
     *     they are
     *                                     empty; "empty-mlsd": those of MLSD are
     * @param  int|null  $dataRefusedAfter  data connections of a session after this many are answered 425
     * @param  bool  $pinned  directories keep their names, whoever asks for another
     * @param  int|null  $jobsFailAt  packing and unpacking is broken off after this many files
     * @param  bool  $noJobs  the control service does not offer to pack, unpack and move
     * @param  bool  $controlFails  the control service does nothing and answers 500
     */
    public function __construct(
        public bool $refuse = false,
        public int $delayMs = 0,
        public ?int $dropAfterBytes = null,
        public ?int $dropAfterCommands = null,
        public ?int $fullAtBytes = null,
        public bool $lie = false,
        public ?int $closeDataAfter = null,
        public bool $hang = false,
        public ?string $listing = null,
        public bool $demandTls = false,
        public ?string $passiveAddress = null,
        public bool $landHome = false,
        public bool $noJail = false,
        public bool $moreThanAsked = false,
        public int $closeLate = 0,
        public bool $closeNever = false,
        public int $controlDelayMs = 0,
        public bool $loseAnswer = false,
        public bool $controlFails = false,
        public bool $claim = false,
        public bool $alter = false,
        public ?string $listingFault = null,
        public ?int $dataRefusedAfter = null,
        public bool $pinned = false,
        public ?int $jobsFailAt = null,
        public bool $noJobs = false,
    ) {
    }

    /**
     * @param  array<mixed>  $values  keys as in toArray()
     *
     * @throws InvalidArgumentException on an unknown key or a value of the wrong kind
     */
    public static function fromArray(array $values): self
    {
        $unknown = array_diff(array_keys($values), array_keys((new self)->toArray()));
        if ($unknown !== []) {
            throw new InvalidArgumentException('unknown fault: '.implode(', ', $unknown));
        }

        return new self(
            self::flag($values, 'refuse'),
            self::number($values, 'delay_ms') ?? 0,
            self::number($values, 'drop_after_bytes'),
            self::number($values, 'drop_after_commands'),
            self::number($values, 'full_at_bytes'),
            self::flag($values, 'lie'),
            self::number($values, 'close_data_after'),
            self::flag($values, 'hang'),
            self::oneOf($values, 'listing', '/\A(unix|dos)\z/'),
            self::flag($values, 'demand_tls'),
            self::oneOf($values, 'passive_address', '/\A\d{1,3}(\.\d{1,3}){3}\z/'),
            self::flag($values, 'land_home'),
            self::flag($values, 'no_jail'),
            self::flag($values, 'more_than_asked'),
            self::number($values, 'close_late') ?? 0,
            self::flag($values, 'close_never'),
            self::number($values, 'control_delay_ms') ?? 0,
            self::flag($values, 'lose_answer'),
            self::flag($values, 'control_fails'),
            self::flag($values, 'claim'),
            self::flag($values, 'alter'),
            self::oneOf($values, 'listing_fault', '/\A(cut|empty|empty-mlsd)\z/'),
            self::number($values, 'data_refused_after'),
            self::flag($values, 'pinned'),
            self::number($values, 'jobs_fail_at'),
            self::flag($values, 'no_jobs'),
        );
    }

    /**
     * @return array{
     *     refuse: bool,
     *     delay_ms: int,
     *     drop_after_bytes: int|null,
     *     drop_after_commands: int|null,
     *     full_at_bytes: int|null,
     *     lie: bool,
     *     close_data_after: int|null,
     *     hang: bool,
     *     listing: string|null,
     *     demand_tls: bool,
     *     passive_address: string|null,
     *     land_home: bool,
     *     no_jail: bool,
     *     more_than_asked: bool,
     *     close_late: int,
     *     close_never: bool,
     *     control_delay_ms: int,
     *     lose_answer: bool,
     *     control_fails: bool,
     *     claim: bool,
     *     alter: bool,
     *     listing_fault: string|null,
     *     data_refused_after: int|null,
     *     pinned: bool,
     *     jobs_fail_at: int|null,
     *     no_jobs: bool,
     * }
     */
    public function toArray(): array
    {
        return [
            'refuse' => $this->refuse,
            'delay_ms' => $this->delayMs,
            'drop_after_bytes' => $this->dropAfterBytes,
            'drop_after_commands' => $this->dropAfterCommands,
            'full_at_bytes' => $this->fullAtBytes,
            'lie' => $this->lie,
            'close_data_after' => $this->closeDataAfter,
            'hang' => $this->hang,
            'listing' => $this->listing,
            'demand_tls' => $this->demandTls,
            'passive_address' => $this->passiveAddress,
            'land_home' => $this->landHome,
            'no_jail' => $this->noJail,
            'more_than_asked' => $this->moreThanAsked,
            'close_late' => $this->closeLate,
            'close_never' => $this->closeNever,
            'control_delay_ms' => $this->controlDelayMs,
            'lose_answer' => $this->loseAnswer,
            'control_fails' => $this->controlFails,
            'claim' => $this->claim,
            'alter' => $this->alter,
            'listing_fault' => $this->listingFault,
            'data_refused_after' => $this->dataRefusedAfter,
            'pinned' => $this->pinned,
            'jobs_fail_at' => $this->jobsFailAt,
            'no_jobs' => $this->noJobs,
        ];
    }

    /** @param  array<mixed>  $values */
    private static function flag(array $values, string $key): bool
    {
        $value = $values[$key] ?? false;

        return is_bool($value) ? $value : throw new InvalidArgumentException("$key takes true or false");
    }

    /** @param  array<mixed>  $values */
    private static function oneOf(array $values, string $key, string $pattern): ?string
    {
        $value = $values[$key] ?? null;

        return $value === null || (is_string($value) && preg_match($pattern, $value) === 1)
            ? $value
            : throw new InvalidArgumentException("$key takes null or what matches $pattern");
    }

    /** @param  array<mixed>  $values */
    private static function number(array $values, string $key): ?int
    {
        $value = $values[$key] ?? null;

        return $value === null || (is_int($value) && $value >= 0)
            ? $value
            : throw new InvalidArgumentException("$key takes a whole number from 0");
    }
}
