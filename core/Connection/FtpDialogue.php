<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Credential\Secret;

/** A control connection, line by line (RFC 959, 4217), for looking at a server; files go through FtpRemoteDirectory. */
final class FtpDialogue
{
    /** @var resource */
    private $stream;

    public ?\OpenSSLCertificate $certificate = null;

    /** @var list<string> who signed it, and who signed that one, as far as the server tells */
    public array $chain = [];

    /** Why the certificate was not verified, in the words of OpenSSL; null when it was. */
    public ?string $distrust = null;

    private function __construct(
        private readonly string $host,
        private readonly string $address,
        private readonly int $port,
        private readonly int $seconds,
        private readonly ?string $authorities,
    ) {
    }

    /** @throws RemoteFailure Unreachable, TimedOut */
    public static function connect(string $host, string $address, int $port, int $seconds, ?string $authorities): self
    {
        $dialogue = new self($host, $address, $port, $seconds, $authorities);
        $dialogue->open(true);

        return $dialogue;
    }

    private function open(bool $verify): void
    {
        $context = stream_context_create([
            'ssl' => [
                'peer_name' => $this->host,
                'verify_peer' => $verify,
                'verify_peer_name' => $verify,
                'capture_peer_cert' => true,
                'capture_peer_cert_chain' => true,
                'SNI_enabled' => true,
            ] + ($this->authorities === null || $this->authorities === '' ? [] : ['cafile' => $this->authorities]),
        ]);
        $where = str_contains($this->address, ':') ? "[$this->address]" : $this->address;
        $stream = @stream_socket_client(
            "tcp://$where:$this->port",
            $number,
            $error,
            $this->seconds,
            STREAM_CLIENT_CONNECT,
            $context,
        );
        if ($stream === false) {
            throw RemoteFailure::while(
                "connecting to $this->address port $this->port",
                FailureReason::Unreachable,
                $error,
            );
        }
        stream_set_timeout($stream, $this->seconds);
        $this->stream = $stream;
    }

    /** @return Answer null when the server closed or stayed silent */
    public function hear(): ?Answer
    {
        $lines = [];
        while (count($lines) < 200 && ($line = fgets($this->stream, 4096)) !== false) {
            $lines[] = mb_scrub(Secret::redact(rtrim($line, "\r\n")));
            if (
                preg_match('/\A(\d{3}) /', $line, $match) === 1
                && ($lines[0] === end($lines) || str_starts_with($lines[0], "$match[1]-"))
            ) {
                return new Answer((int) $match[1], $lines);
            }
            if (count($lines) === 1 && preg_match('/\A\d{3}-/', $line) !== 1) {
                return new Answer(0, $lines);
            }
        }

        return $lines === [] ? null : new Answer(0, $lines);
    }

    public function say(#[\SensitiveParameter] string $command): ?Answer
    {
        if (preg_match('/[\r\n]/', $command) === 1) {
            throw new \InvalidArgumentException('a command is one line');
        }
        $line = "$command\r\n";

        return @fwrite($this->stream, $line) === strlen($line) ? $this->hear() : null;
    }

    /** Whether the server was only silent, and not gone. */
    public function isSilent(): bool
    {
        return stream_get_meta_data($this->stream)['timed_out'];
    }

    /**
     * Encrypts the connection. A certificate that does not verify is looked at over a second connection without
     * verification; nothing may be said on that one but what may be read by anybody.
     *
     * @param  bool  $asked  whether AUTH TLS comes first
     * @return bool whether the server can do TLS at all
     */
    public function encrypt(bool $asked): bool
    {
        foreach ([true, false] as $verify) {
            if (! $verify) {
                $this->close();
                $this->open(false);
                if ($asked && ($this->hear()?->code !== 220 || $this->say('AUTH TLS')?->code !== 234)) {
                    return false;
                }
            }
            $warnings = [];
            set_error_handler(static function (int $number, string $text) use (&$warnings): bool {
                $warnings[] = $text;

                return true;
            });
            try {
                $done = stream_socket_enable_crypto($this->stream, true, STREAM_CRYPTO_METHOD_TLS_CLIENT);
            } finally {
                restore_error_handler();
            }
            if ($done === true) {
                $tls = stream_context_get_options($this->stream)['ssl'] ?? null;
                $certificate = is_array($tls) ? $tls['peer_certificate'] ?? null : null;
                $this->certificate = $certificate instanceof \OpenSSLCertificate ? $certificate : null;
                $this->chain = self::issuers(
                    is_array($tls) && is_array($tls['peer_certificate_chain'] ?? null)
                        ? $tls['peer_certificate_chain']
                        : [],
                );

                return true;
            }
            $this->distrust = self::words(implode(' ', $warnings));
        }

        return false;
    }

    /**
     * @param  array<mixed>  $certificates  from the server's own upwards
     * @return list<string>
     */
    private static function issuers(array $certificates): array
    {
        $names = [];
        foreach ($certificates as $certificate) {
            $facts = $certificate instanceof \OpenSSLCertificate ? openssl_x509_parse($certificate) : false;
            $issuer = $facts === false ? null : $facts['issuer'] ?? null;
            $name = is_array($issuer) ? $issuer['CN'] ?? $issuer['O'] ?? null : null;
            $names[] = is_string($name) ? mb_substr($name, 0, 80) : 'nobody named';
        }

        return array_values(array_unique($names));
    }

    private static function words(string $warnings): string
    {
        return match (true) {
            str_contains($warnings, 'did not match') => 'it is for another name',
            str_contains($warnings, 'verify failed') => 'no known authority has signed it, or its time is over',
            default => 'the encryption could not be agreed on',
        };
    }

    /** Whether something answers at a port the server named for data. */
    public function reaches(int $port): bool
    {
        $where = str_contains($this->address, ':') ? "[$this->address]" : $this->address;
        $data = @stream_socket_client("tcp://$where:$port", $number, $error, min(8, $this->seconds));
        if ($data === false) {
            return false;
        }
        fclose($data);

        return true;
    }

    public function close(): void
    {
        if (is_resource($this->stream)) {
            fclose($this->stream);
        }
    }
}
