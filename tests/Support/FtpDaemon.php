<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Connection\Endpoint;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Credential\Secret;
use Cellarium\Standin\World\CertificateMaker;
use PHPUnit\Framework\Assert;
use RuntimeException;

/**
 * One of Debian's FTP daemons on loopback, with a made-up login of its own: servers that nobody here wrote.
 *
 * They are unpacked below var/ by ./test and have to be started as root, since they change to the login's user.
 */
abstract class FtpDaemon
{
    public const LOGIN = 'harbour';

    /** Whom the files belong to; no real user of this machine. */
    public const USER = 30033;

    /** @var resource */
    private $process;

    public readonly int $port;

    /** The directory that the login lands in. */
    public readonly string $home;

    /**
     * @param  string  $directory  empty, for the daemon's own files
     * @param  string  $tls  "" for none, "1.2" or "1.3" for that version alone, "any" for both
     * @param  bool  $reuse  whether a data connection has to resume the control connection's session
     * @param  bool  $setsModes  whether it takes SITE CHMOD; many hosts forbid it
     * @param  array{int, int}|null  $passivePorts  first and last for data connections; null for any
     */
    public function __construct(
        protected readonly string $directory,
        private readonly Protocol $protocol = Protocol::FtpsExplicit,
        protected readonly string $tls = 'any',
        protected readonly bool $reuse = true,
        protected readonly bool $setsModes = true,
        protected readonly ?array $passivePorts = null,
    ) {
        posix_geteuid() === 0 || Assert::markTestSkipped(
            static::class.' changes to the user of a login: install uidmap and run ./test, or run it as root.',
        );
        $this->home = "$directory/home";
        mkdir($this->home);
        chown($this->home, self::USER);
        chgrp($this->home, self::USER);
        chmod($directory, 0755);
        (new CertificateMaker($directory))->make([StandinHost::HOST]);
        $this->port = FreePort::find();
        $log = ['file', "$directory/log", 'a'];
        $environment = [
            'LD_LIBRARY_PATH' => self::unpacked('usr/lib/x86_64-linux-gnu'),
            // No client shows a certificate: reading every authority of the machine takes longer than a sign-in.
            'SSL_CERT_FILE' => '/dev/null',
            'SSL_CERT_DIR' => $directory,
            ...$this->environment(),
        ];
        $process = proc_open(
            $this->command(),
            [0 => ['file', '/dev/null', 'r'], 1 => $log, 2 => $log],
            $pipes,
            null,
            $environment,
        );
        $this->process = $process === false ? throw new RuntimeException('The daemon did not start.') : $process;
        $until = microtime(true) + 10;
        while (($socket = @stream_socket_client("tcp://127.0.0.1:$this->port", $number, $error, 1)) === false) {
            microtime(true) < $until && proc_get_status($this->process)['running']
                ? usleep(5000)
                : throw new RuntimeException("It did not come up: {$this->log()}");
        }
        fclose($socket);
    }

    /** @return list<string> */
    abstract protected function command(): array;

    /** @return array<string, string> */
    protected function environment(): array
    {
        return [];
    }

    protected function isImplicit(): bool
    {
        return $this->protocol === Protocol::FtpsImplicit;
    }

    protected function certificate(): string
    {
        return "$this->directory/server.pem";
    }

    protected static function unpacked(string $path): string
    {
        $file = dirname(__DIR__, 2)."/var/test/daemons/root/$path";

        return file_exists($file) ? $file : throw new RuntimeException("$path is not unpacked; ./test does it.");
    }

    protected static function passwordHash(): string
    {
        return crypt(StandinHost::PASSWORD, '$6$'.bin2hex(random_bytes(6)));
    }

    public function endpoint(): Endpoint
    {
        return new Endpoint(
            StandinHost::HOST,
            $this->port,
            $this->protocol,
            self::LOGIN,
            new Secret(StandinHost::PASSWORD),
            '127.0.0.1',
            "$this->directory/ca.pem",
        );
    }

    /** Puts a file into the home as the login's own, whatever letters its name has. */
    public function lay(string $path, string $bytes): void
    {
        file_put_contents("$this->home/$path", $bytes);
        chown("$this->home/$path", self::USER);
    }

    public function layDirectory(string $path): void
    {
        mkdir("$this->home/$path");
        chown("$this->home/$path", self::USER);
    }

    public function log(): string
    {
        return (string) @file_get_contents("$this->directory/log");
    }

    public function stop(): void
    {
        Processes::end($this->process);
    }
}
