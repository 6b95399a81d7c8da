<?php

declare(strict_types=1);

namespace Cellarium\Core\People;

use Cellarium\Core\Credential\Secret;
use ParagonIE\ConstantTime\Base32;

/** Codes of a second factor that change with time (TOTP, RFC 6238), with SHA-1, as authenticator apps take them. */
final readonly class OneTimeCode
{
    private const STEP_SECONDS = 30;

    private const SECRET_BYTES = 20;

    /** Codes of so many steps before and after are taken: clocks differ, and typing takes time. */
    private const SKEW = 1;

    /** @param  Secret  $key  raw bytes */
    public function __construct(private Secret $key, private int $digits = 6)
    {
    }

    public static function make(): self
    {
        return new self(new Secret(random_bytes(self::SECRET_BYTES)));
    }

    /** @throws \InvalidArgumentException when it is no Base32 (RFC 4648) */
    public static function fromBase32(#[\SensitiveParameter] string $text): self
    {
        try {
            return new self(new Secret(Base32::decodeUpper(strtoupper(rtrim($text, '=')))));
        } catch (\RangeException $wrong) {
            throw new \InvalidArgumentException('This is no key of a second factor.', 0, $wrong);
        }
    }

    /** Without padding, as it is typed into an app. */
    public function toBase32(): Secret
    {
        return new Secret(Base32::encodeUpperUnpadded($this->key->reveal()));
    }

    /** What the QR code says: a Key URI, which all authenticator apps read. */
    public function uri(string $issuer, string $who): Secret
    {
        $query = http_build_query(
            ['secret' => $this->toBase32()->reveal(), 'issuer' => $issuer],
            '',
            '&',
            PHP_QUERY_RFC3986,
        );

        return new Secret('otpauth://totp/'.rawurlencode($issuer).':'.rawurlencode($who)."?$query");
    }

    /** @param  int  $at  seconds since 1970 */
    public function at(int $at): string
    {
        return $this->ofStep(intdiv($at, self::STEP_SECONDS));
    }

    /**
     * The step a code belongs to, so that it is taken a single time (RFC 6238, 5.2).
     *
     * @param  int  $after  the last step whose code was taken
     * @return int|null null when it is not right, or was taken before
     */
    public function stepOf(#[\SensitiveParameter] string $code, int $at, int $after): ?int
    {
        $now = intdiv($at, self::STEP_SECONDS);
        $found = null;
        for ($step = $now - self::SKEW; $step <= $now + self::SKEW; $step++) {
            // All are compared, so that the time it takes says nothing.
            if (hash_equals($this->ofStep($step), $code) && $step > $after) {
                $found = $step;
            }
        }

        return $found;
    }

    /** HOTP (RFC 4226, 5.3) of the number of the step. */
    private function ofStep(int $step): string
    {
        $mac = hash_hmac('sha1', pack('J', $step), $this->key->reveal(), true);
        $offset = ord($mac[19]) & 0x0F;
        $number = hexdec(bin2hex(substr($mac, $offset, 4))) & 0x7FFFFFFF;

        return sprintf("%0{$this->digits}d", $number % 10 ** $this->digits);
    }
}
