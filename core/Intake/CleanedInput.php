<?php

declare(strict_types=1);

namespace Cellarium\Core\Intake;

use Cellarium\Core\Connection\Protocol;

/** A typed or pasted value without what came along with it, and what that was. */
final readonly class CleanedInput
{
    /** Zero-width characters, soft hyphens and marks of direction: nobody sees or types them. */
    public const UNSEEN = '/[\x{200B}-\x{200F}\x{061C}\x{180E}\x{202A}-\x{202E}'
        .'\x{2060}-\x{2064}\x{2066}-\x{2069}\x{FEFF}\x{00AD}]/u';

    private const QUOTES = "\"'`\u{201C}\u{201D}\u{201E}\u{2018}\u{2019}\u{201A}\u{00AB}\u{00BB}\u{2039}\u{203A}";

    /**
     * @param  list<string>  $changes  what was taken off or turned into something else, each a short phrase
     * @param  int|null  $port  one that stood inside a host
     * @param  string|null  $path  one that stood behind a host, "/www"
     */
    private function __construct(
        public string $value,
        public array $changes,
        public ?int $port = null,
        public ?string $path = null,
        public ?Protocol $protocol = null,
        public ?string $login = null,
    ) {
    }

    /** Edges and invisible characters only: what logins, passwords and directories may lose. Case stays. */
    public static function word(#[\SensitiveParameter] string $text): self
    {
        $changes = [];
        $value = self::visible($text, $changes);
        if (preg_match('/\A['.self::QUOTES.'](.*)['.self::QUOTES.']\z/su', $value, $match) === 1) {
            $value = $match[1];
            $changes[] = 'quotes around it taken off';
        }

        return new self($value, $changes);
    }

    /** A host name out of whatever was typed for one: an address with scheme, login, port and path, in capitals. */
    public static function host(string $text): self
    {
        $word = self::word($text);
        [$value, $changes, $port, $path, $protocol, $login] = [$word->value, $word->changes, null, null, null, null];
        if (preg_match('~\A([a-z][a-z0-9+.-]*)://(.*)\z~si', $value, $match) === 1) {
            $changes[] = "scheme $match[1]:// taken off";
            $protocol = match (strtolower($match[1])) {
                'sftp', 'ssh' => Protocol::Sftp,
                'ftps' => Protocol::FtpsImplicit,
                'ftpes' => Protocol::FtpsExplicit,
                'ftp' => Protocol::Ftp,
                default => null,
            };
            $value = $match[2];
        }
        if (preg_match('~\A([^/@\s]+)@(.+)\z~s', $value, $match) === 1) {
            $login = rawurldecode(explode(':', $match[1], 2)[0]);
            $value = $match[2];
            $changes[] = 'login in front of the host taken off';
        }
        if (preg_match('~\A([^/?\#]*)([/?\#].*)\z~s', $value, $match) === 1) {
            $value = $match[1];
            $path = rtrim((string) preg_replace('/[?#].*\z/s', '', $match[2]), '/') ?: null;
            $changes[] = "path $match[2] taken off";
        }
        if (preg_match('~\A(.+?):(\d{1,5})\z~', $value, $match) === 1 && substr_count($value, ':') === 1) {
            $value = $match[1];
            $port = (int) $match[2];
            $changes[] = "port $port taken out of the host";
        }
        if (preg_match('/\A(.+?)[.,;:]+\z/s', $value, $match) === 1) {
            $changes[] = 'full stop or comma at its end taken off';
            $value = $match[1];
        }
        if ($value !== strtolower($value)) {
            $value = strtolower($value);
            $changes[] = 'put in small letters';
        }
        if ($protocol === null && $path !== null && str_starts_with($value, 'www.')) {
            $value = substr($value, 4);
            $changes[] = 'prefix www. taken off';
        } elseif (preg_match('/\Awww\.(.+\..+)\z/', $value, $match) === 1) {
            $value = $match[1];
            $changes[] = 'prefix www. taken off';
        }

        return new self($value, $changes, $port, $path, $protocol, $login);
    }

    public static function isHost(string $value): bool
    {
        return filter_var($value, FILTER_VALIDATE_IP) !== false
            || preg_match(
                '/\A(?=.{4,253}\z)([a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?\.)+[a-z][a-z0-9-]{0,61}[a-z0-9]\z/i',
                $value,
            ) === 1;
    }

    /** @param  list<string>  $changes */
    private static function visible(string $text, array &$changes): string
    {
        $seen = (string) preg_replace(self::UNSEEN, '', $text);
        if ($seen !== $text) {
            $changes[] = 'invisible characters taken out';
        }
        $plain = str_replace(["\u{00A0}", "\u{202F}", "\u{2007}"], ' ', $seen);
        $trimmed = trim($plain);
        if ($plain !== $seen && str_contains($trimmed, ' ')) {
            $changes[] = 'no-break blanks turned into blanks';
        }
        if ($trimmed !== $plain) {
            $changes[] = 'blanks at its edges taken off';
        }

        return $trimmed;
    }
}
