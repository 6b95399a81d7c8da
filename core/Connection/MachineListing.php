<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Path\WireName;

/** Reads the machine listings of RFC 3659 section 7; strict, because a line misread is a file lost. */
final readonly class MachineListing implements ListingLines
{
    /** @param  string  $what  "listing /www", for what is not understood */
    public function __construct(private string $what)
    {
    }

    public function entry(string $line): ?RemoteEntry
    {
        $what = $this->what;
        if (preg_match('/\A((?:[^=;\s]+=[^;]*;)+) ([^\/\x00]+)\z/s', $line, $match) !== 1) {
            return $this->isItself($line)
                ? null
                : throw RemoteFailure::while($what, FailureReason::NotUnderstood, $line);
        }
        $facts = [];
        foreach (explode(';', rtrim($match[1], ';')) as $fact) {
            [$name, $value] = explode('=', $fact, 2) + [1 => ''];
            $facts[strtolower($name)] = $value;
        }
        $kind = match (true) {
            ! isset($facts['type']) => throw RemoteFailure::while($what, FailureReason::NotUnderstood, $line),
            in_array(strtolower($facts['type']), ['cdir', 'pdir'], true) => null,
            strtolower($facts['type']) === 'file' => EntryKind::File,
            strtolower($facts['type']) === 'dir' => EntryKind::Directory,
            preg_match('/\AOS\.unix=(symlink|slink)/i', $facts['type']) === 1 => EntryKind::Link,
            default => EntryKind::Other,
        };

        return $kind === null || $match[2] === '.' || $match[2] === '..'
            ? null
            : new RemoteEntry(
                WireName::fromWire($match[2]),
                $kind,
                self::number($facts['size'] ?? null, $line, $what),
                self::time($facts['modify'] ?? null, $line, $what),
                self::mode($facts['unix.mode'] ?? ''),
                target: $kind === EntryKind::Link
                && preg_match('/\AOS\.unix=slink:(.+)\z/i', $facts['type'], $link) === 1
                    ? WireName::fromWire($link[1])
                    : null,
            );
    }

    /** The directory itself and the one above may be named by their paths (RFC 3659 section 7.4). */
    private function isItself(string $line): bool
    {
        return preg_match('/\A(?:[^=;\s]+=[^;]*;)*type=[cp]dir;(?:[^=;\s]+=[^;]*;)* .+\z/si', $line) === 1;
    }

    /** Null where the server gives none; pyftpdlib writes octal numbers as "0o640". */
    private static function mode(string $digits): ?int
    {
        return preg_match('/\A(?:0o)?([0-7]{3,7})\z/', $digits, $match) === 1 ? (int) octdec($match[1]) & 07777 : null;
    }

    private static function number(?string $digits, string $line, string $what): ?int
    {
        if ($digits === null) {
            return null;
        }

        return preg_match('/\A\d{1,18}\z/', $digits) === 1
            ? (int) $digits
            : throw RemoteFailure::while($what, FailureReason::NotUnderstood, $line);
    }

    private static function time(?string $value, string $line, string $what): ?int
    {
        if ($value === null) {
            return null;
        }
        $time = preg_match('/\A(\d{14})(?:\.\d+)?\z/', $value, $match) === 1
            ? \DateTimeImmutable::createFromFormat('!YmdHis', $match[1], new \DateTimeZone('UTC'))
            : false;

        return $time === false
            ? throw RemoteFailure::while($what, FailureReason::NotUnderstood, $line)
            : $time->getTimestamp();
    }
}
