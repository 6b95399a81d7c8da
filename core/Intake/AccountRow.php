<?php

declare(strict_types=1);

namespace Cellarium\Core\Intake;

use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Path\RemotePath;

/** One row of a list, cleaned and judged. */
final readonly class AccountRow
{
    /**
     * @param  array<string, string|int|list<string>>  $values  by column; only columns the list has
     * @param  string|null  $refusal  why it cannot be taken, a sentence
     */
    private function __construct(
        public int $line,
        #[\SensitiveParameter]
        public array $values,
        public ?string $refusal,
    ) {
    }

    /**
     * @param  list<string>  $cells
     * @param  array<int, Column>  $columns
     */
    public static function read(int $line, #[\SensitiveParameter] array $cells, array $columns): self
    {
        $typed = [];
        foreach ($columns as $number => $column) {
            $typed[$column->value] = $cells[$number] ?? '';
        }
        $values = [];
        $wrong = [];
        $host = CleanedInput::host($typed['host'] ?? '');
        CleanedInput::isHost($host->value)
            || ($wrong[] = $host->value === '' ? 'the host is missing' : "\"$host->value\" is not a host");
        $values['host'] = $host->value;
        $named = mb_strtolower(trim($typed['protocol'] ?? ''));
        $protocol =
            $named === '' ? $host->protocol ?? self::byPort(trim($typed['port'] ?? '')) : self::protocol($named);
        $protocol !== null || ($wrong[] = "\"$named\" is not a protocol");
        $values['protocol'] = ($protocol ?? Protocol::FtpsExplicit)->value;
        $port = trim($typed['port'] ?? '') ?: (string) ($host->port ?? '');
        (preg_match('/\A\d{0,5}\z/', $port) === 1 && (int) $port <= 65535) || $wrong[] = "\"$port\" is not a port";
        $values['port'] = $port === '' ? ($protocol ?? Protocol::FtpsExplicit)->defaultPort() : (int) $port;
        foreach (['login', 'password', 'label', 'company', 'client', 'group', 'notes'] as $field) {
            if (isset($typed[$field])) {
                $values[$field] = CleanedInput::word($typed[$field])->value;
            }
        }
        ($values['login'] ?? '') !== '' || $wrong[] = 'the login is missing';
        ($values['client'] ?? '') !== '' || $wrong[] = 'the client is missing';
        foreach (['start_directory', 'document_root'] as $field) {
            $path = trim($typed[$field] ?? '');
            if ($path !== '') {
                $absolute = RemotePath::tryFromString(str_starts_with($path, '/') ? $path : "/$path");
                $absolute !== null
                    ? ($values[$field] = $absolute->toString())
                    : ($wrong[] = "\"$path\" is not a directory");
            }
        }
        $domain = CleanedInput::host($typed['domain'] ?? '')->value;
        if ($domain !== '') {
            CleanedInput::isHost($domain) ? $values['domain'] = $domain : $wrong[] = "\"$domain\" is not a domain";
        }
        $address = trim($typed['address'] ?? '');
        if ($address !== '') {
            filter_var($address, FILTER_VALIDATE_IP) !== false
                ? ($values['address'] = $address)
                : ($wrong[] = "\"$address\" is not an IP address");
        }
        if (isset($typed['tags'])) {
            $values['tags'] = array_values(
                array_filter(
                    array_map(trim(...), preg_split('/[,;|]/', $typed['tags']) ?: []),
                    static fn (string $tag): bool => $tag !== '',
                ),
            );
        }

        return new self($line, $values, $wrong === [] ? null : ucfirst(implode('; ', $wrong)).'.');
    }

    public function key(): string
    {
        return self::keyOf((string) $this->text('host'), (int) $this->values['port'], (string) $this->text('login'));
    }

    /** What one account is told from another by. */
    public static function keyOf(string $host, int $port, string $login): string
    {
        return "$login\0$host\0$port";
    }

    public function text(string $column): ?string
    {
        $value = $this->values[$column] ?? null;

        return is_string($value) ? $value : null;
    }

    private static function byPort(string $port): Protocol
    {
        return match ($port) {
            '22' => Protocol::Sftp,
            '990' => Protocol::FtpsImplicit,
            default => Protocol::FtpsExplicit,
        };
    }

    private static function protocol(string $named): ?Protocol
    {
        return match (true) {
            preg_match('/\A(sftp|ssh)\b/', $named) === 1 => Protocol::Sftp,
            str_contains($named, 'implicit') => Protocol::FtpsImplicit,
            preg_match('/\A(ftps|ftpes)\b|tls|ssl|explicit/', $named) === 1 => Protocol::FtpsExplicit,
            preg_match('/\A(plain )?ftp\z/', $named) === 1 => Protocol::Ftp,
            default => null,
        };
    }
}
