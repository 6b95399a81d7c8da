<?php

declare(strict_types=1);

namespace Cellarium\Core\Account;

use Cellarium\Core\Credential\Secret;

/** All that is needed to sign in somewhere. */
final readonly class Endpoint
{
    /**
     * @param  string  $host  a name; certificates are checked against it
     * @param  int  $port  1 to 65535
     * @param  string|null  $address  IP address to connect to instead of asking the name service
     * @param  string|null  $authorities  PEM file of the authorities to trust; null for the system's
     */
    public function __construct(
        public string $host,
        public int $port,
        public Protocol $protocol,
        public string $login,
        public Secret $password,
        public ?string $address = null,
        public ?string $authorities = null,
    ) {
        if ($port < 1 || $port > 65535) {
            throw new \InvalidArgumentException("$port is not a port");
        }
    }

    public function signedInAs(string $login, Secret $password): self
    {
        return new self($this->host, $this->port, $this->protocol, $login, $password, $this->address, $this->authorities);
    }
}
