<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Path\RemotePath;

/** All that is needed to sign in somewhere. */
final readonly class Endpoint
{
    /**
     * @param  string  $host  a name; certificates are checked against it
     * @param  int  $port  1 to 65535
     * @param  string|null  $address  IP address to connect to instead of asking the name service
     * @param  string|null  $authorities  PEM file of the authorities to trust; null for the system's
     * @param  Pin|null  $pin  who the server has to be; needed for SFTP, for TLS it takes the place of the authorities
     * @param  Secret|null  $key  private key without passphrase, OpenSSH or PKCS #8, used instead of the password
     * @param  RemotePath|null  $start  the directory on the server that is "/" here; null for "/" over FTP and for
     *                                  where the login lands over SFTP
     * @param  bool  $active  over FTP, the server opens the data connections (RFC 959, 3.2) instead of this side
     * @param  TlsUse  $tls  what is known to do with this server, for FTP over TLS
     */
    public function __construct(
        public string $host,
        public int $port,
        public Protocol $protocol,
        public string $login,
        public Secret $password,
        public ?string $address = null,
        public ?string $authorities = null,
        public ?Pin $pin = null,
        public ?Secret $key = null,
        public ?RemotePath $start = null,
        public bool $active = false,
        public TlsUse $tls = TlsUse::Resuming,
    ) {
        if ($port < 1 || $port > 65535) {
            throw new \InvalidArgumentException("$port is not a port");
        }
    }

    /** The same server for another login, which lands where the host sends it. */
    public function signedInAs(string $login, Secret $password): self
    {
        return $this->with([
            'login' => $login,
            'password' => $password,
            'key' => null,
            'start' => null,
        ]);
    }

    /**
     * Another service of the same host. What was accepted for one key holds for the other service only where it is the
     * same kind.
     */
    public function through(Protocol $protocol, int $port): self
    {
        $sameKind = ($this->protocol === Protocol::Sftp) === ($protocol === Protocol::Sftp);

        return $this->with([
            'port' => $port,
            'protocol' => $protocol,
            'pin' => $sameKind ? $this->pin : null,
            'key' => null,
            'start' => null,
            'active' => $this->active && $protocol !== Protocol::Sftp,
        ]);
    }

    public function pinned(?Pin $pin): self
    {
        return $this->with(['pin' => $pin]);
    }

    /** The same host at an IP address that was looked up; null to have it looked up again. */
    public function at(?string $address): self
    {
        return $this->with(['address' => $address]);
    }

    /** @param  array<string, mixed>  $changes  by the constructor's names */
    private function with(array $changes): self
    {
        // @phpstan-ignore argument.type (the names are the constructor's own)
        return new self(...$changes + get_object_vars($this));
    }

    /**
     * For a pipe to a process of our own and nothing else: the secrets are readable in it.
     *
     * @return array<string, mixed>
     */
    public function reveal(): array
    {
        return [
            'host' => $this->host,
            'port' => $this->port,
            'protocol' => $this->protocol->value,
            'login' => $this->login,
            'password' => $this->password->reveal(),
            'address' => $this->address,
            'authorities' => $this->authorities,
            'pin' => $this->pin?->toArray(),
            'key' => $this->key?->reveal(),
            'start' => $this->start?->toString(),
            'active' => $this->active,
            'tls' => $this->tls->value,
        ];
    }

    public static function fromFields(JsonFields $fields): self
    {
        $key = $fields->textOrNull('key');
        $start = $fields->textOrNull('start');

        return new self(
            $fields->text('host'),
            $fields->number('port'),
            Protocol::from($fields->text('protocol')),
            $fields->text('login'),
            new Secret($fields->text('password')),
            $fields->textOrNull('address'),
            $fields->textOrNull('authorities'),
            $fields->has('pin') ? Pin::fromFields($fields->fields('pin')) : null,
            $key === null ? null : new Secret($key),
            $start === null ? null : RemotePath::fromString($start),
            $fields->flag('active'),
            TlsUse::from($fields->text('tls')),
        );
    }
}
