<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use phpseclib3\Net\SFTP;

/**
 * Several renamings (draft-ietf-secsh-filexfer-02, 6.5) in one piece.
 *
 * The library waits for the answer to each, and offers no other way; so this composes the packets itself and lends the
 * library's own sending and receiving for them. The version of the library is pinned, and a test against OpenSSH
 * notices if it changes.
 */
final class SftpRenames
{
    private const RENAME = 18;

    private const EXTENDED = 200;

    private const OK = 0;

    /**
     * @param  list<array{string, string}>  $pairs  from and to, as the server has them
     * @return list<string|null> for each, what was said against it
     *
     * @throws \Exception of the connection
     */
    public static function send(SFTP $sftp, array $pairs): array
    {
        // The extension does what rename(2) does, and a server that lacks it renames what is in nobody's way just as
        // well.
        $extended = isset($sftp->getSupportedExtensions()['posix-rename@openssh.com']);
        $piece = '';
        foreach ($pairs as $number => [$from, $to]) {
            $data = ($extended ? self::text('posix-rename@openssh.com') : '').self::text($from).self::text($to);
            $type = $extended ? self::EXTENDED : self::RENAME;
            $piece .= pack('N', strlen($data) + 5).pack('CN', $type, $number + 1).$data;
        }
        /** @var \Closure(string, int): list<string> $exchange */
        $exchange = \Closure::bind(static function (string $piece, int $count) use ($sftp): array {
            $sftp->send_channel_packet(SFTP::CHANNEL, $piece);
            $answers = [];
            for ($number = 1; $number <= $count; $number++) {
                $answers[] = $sftp->get_sftp_packet($number);
            }

            return $answers;
        }, null, SFTP::class);

        return array_map(self::said(...), $exchange($piece, count($pairs)));
    }

    private static function said(mixed $answer): ?string
    {
        // SSH_FXP_STATUS: its number, the length of what is said, what is said.
        $status = is_string($answer) && strlen($answer) >= 4 ? unpack('N', $answer) : false;
        if ($status === false) {
            throw new \UnexpectedValueException('no answer to a renaming');
        }
        $length = unpack('N', substr((string) $answer, 4, 4));
        $words = substr((string) $answer, 8, is_int($length[1] ?? null) ? $length[1] : 0);

        return match (true) {
            $status[1] === self::OK => null,
            $words === '' => 'refused',
            default => $words,
        };
    }

    private static function text(string $bytes): string
    {
        return pack('N', strlen($bytes)).$bytes;
    }
}
