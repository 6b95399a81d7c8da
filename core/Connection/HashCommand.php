<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

/** The commands by which FTP servers compute hashes, the surest first. */
enum HashCommand: string
{
    /** draft-bryan-ftpext-hash: "213 SHA-256 0-49 …"; which algorithm is told before. */
    case Hash = 'HASH';

    /** Their forerunners, each answered "250 …". */
    case Sha256 = 'XSHA256';
    case Md5 = 'XMD5';
    case Crc32 = 'XCRC';

    /** @param  list<string>  $replies  the lines answered to FEAT (RFC 2389, 3.2) */
    public static function offered(array $replies): ?self
    {
        $features = implode("\n", $replies);
        foreach (self::cases() as $command) {
            $with = $command === self::Hash ? '[^\n]*\bSHA-256\b' : '\b';
            if (preg_match("/^[ 0-9-]*$command->value$with/mi", $features) === 1) {
                return $command;
            }
        }

        return null;
    }

    /** @return list<string> to be sent one after the other; "*" lets libcurl go on where one is refused */
    public function lines(string $path): array
    {
        return $this === self::Hash ? ['*OPTS HASH SHA-256', "*HASH $path"] : ["*$this->value $path"];
    }

    public function algorithm(): string
    {
        return match ($this) {
            self::Hash, self::Sha256 => 'sha256',
            self::Md5 => 'md5',
            self::Crc32 => 'crc32b',
        };
    }

    /** What a reply says; null for a refusal, or what is not understood. */
    public function read(string $reply): ?ServerHash
    {
        $digits = match ($this) {
            self::Hash, self::Sha256 => 64,
            self::Md5 => 32,
            self::Crc32 => 8,
        };
        $isWhole = $this === self::Hash
            ? preg_match('/\A213 SHA-256 0-\d+ ([0-9a-f]{64})(?: |\z)/i', $reply, $match)
            : preg_match("/\A2[15][03] (?:.*[ =])?([0-9a-f]{{$digits}})(?: |\z)/i", $reply, $match);

        return $isWhole === 1 ? new ServerHash($this->algorithm(), strtolower($match[1])) : null;
    }
}
