<?php

declare(strict_types=1);

namespace Cellarium\Core\Hosting;

use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Credential\Secret;

/** Everything a person needs to sign in as an FTP user; handed over once. */
final readonly class SignInSettings
{
    /**
     * @param  string  $lands  where the login lands, as the account sees it
     * @param  string|null  $address  that place for visitors
     */
    public function __construct(
        public string $host,
        public int $port,
        public Protocol $protocol,
        public string $login,
        public Secret $password,
        public string $lands,
        public ?string $address,
    ) {
    }

    /**
     * @return array<string, string> by what it is called
     */
    public function reveal(): array
    {
        return [
            'Host' => $this->host,
            'Port' => (string) $this->port,
            'Protocol' => $this->protocol->label(),
            'Login' => $this->login,
            'Password' => $this->password->reveal(),
            'Lands in' => $this->lands,
        ] + ($this->address === null ? [] : ['Visitors see it at' => $this->address]);
    }

    /** To be pasted into a message. */
    public function text(): string
    {
        $lines = [];
        foreach ($this->reveal() as $name => $value) {
            $lines[] = str_pad("$name:", 20).$value;
        }

        return implode("\n", $lines)."\n";
    }

    /**
     * The form of RFC 1738, section 3.2; with a password in it only there, as RFC 3986, section 3.2.1 advises against
     * that. The port is left out where it is the scheme's own.
     */
    public function uri(bool $withPassword): string
    {
        $scheme = $this->protocol->scheme();
        $own = ['ftp' => 21, 'ftps' => 990, 'sftp' => 22][$scheme] ?? 0;

        return $scheme
            .'://'
            .rawurlencode($this->login)
            .($withPassword ? ':'.rawurlencode($this->password->reveal()) : '')
            .'@'
            .$this->host
            .($this->port === $own ? '' : ":$this->port")
            .'/';
    }
}
