<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Connection\Endpoint;
use Cellarium\Core\Connection\Pin;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Credential\Secret;
use RuntimeException;

/** Debian's openssh-server on loopback, with a made-up login of its own through libnss-wrapper. */
final class SshServer
{
    public const LOGIN = 'kelpie';

    /** @var resource */
    private $process;

    public readonly int $port;

    public readonly string $home;

    /** @param  list<string>  $more lines of sshd_config(5) */
    public function __construct(private readonly string $directory, array $more = [])
    {
        $this->home = "$directory/home";
        @mkdir($this->home);
        $this->key('host', 'ed25519');
        [$user, $group] = [posix_geteuid(), posix_getegid()];
        $hash = crypt(StandinHost::PASSWORD, '$6$'.bin2hex(random_bytes(6)));
        file_put_contents(
            "$directory/passwd",
            self::LOGIN.":x:$user:$group:Kelpie:$this->home:/bin/sh\nsshd:x:100:65534::/run/sshd:/usr/sbin/nologin\n",
        );
        file_put_contents("$directory/shadow", self::LOGIN.":$hash:20000:0:99999:7:::\n");
        file_put_contents("$directory/group", "harbour:x:$group:\n");
        file_exists("$directory/authorized") || touch("$directory/authorized");
        $this->port = FreePort::find();
        $lines = [
            ...$more,
            "ListenAddress 127.0.0.1:$this->port",
            "HostKey $directory/host",
            "PidFile $directory/pid",
            "AuthorizedKeysFile $directory/authorized",
            'StrictModes no',
            'UsePAM no',
            'PermitRootLogin yes',
            'KbdInteractiveAuthentication no',
            'Subsystem sftp internal-sftp',
            'ForceCommand internal-sftp',
            'MaxStartups 100',
        ];
        file_put_contents("$directory/sshd_config", implode("\n", $lines)."\n");
        posix_geteuid() === 0 && ! is_dir('/run/sshd') && mkdir('/run/sshd', 0755);
        $wrapped = [
            'LD_PRELOAD' => 'libnss_wrapper.so',
            'NSS_WRAPPER_PASSWD' => "$directory/passwd",
            'NSS_WRAPPER_SHADOW' => "$directory/shadow",
            'NSS_WRAPPER_GROUP' => "$directory/group",
        ];
        $process = proc_open(
            ['/usr/sbin/sshd', '-D', '-e', '-f', "$directory/sshd_config"],
            [2 => ['file', "$directory/log", 'a']],
            $pipes,
            null,
            $wrapped,
        );
        $this->process = $process === false
            ? throw new RuntimeException('sshd did not start; install openssh-server and libnss-wrapper.')
            : $process;
        $until = microtime(true) + 10;
        while (! str_contains((string) @file_get_contents("$directory/log"), 'Server listening')) {
            microtime(true) < $until
                ? usleep(5000)
                : throw new RuntimeException('sshd did not come up: '.@file_get_contents("$directory/log"));
        }
    }

    /** @return string the private key's text */
    public function key(string $name, string $type, string $passphrase = '', int $bits = 3072): string
    {
        exec(
            sprintf(
                'ssh-keygen -q -a 1 -t %s %s -N %s -f %s </dev/null 2>&1',
                $type,
                $type === 'rsa' ? "-b $bits" : '',
                escapeshellarg($passphrase),
                escapeshellarg("$this->directory/$name"),
            ),
            $said,
            $status,
        );

        return $status === 0
            ? (string) file_get_contents("$this->directory/$name")
            : throw new RuntimeException(implode("\n", $said));
    }

    public function authorize(string $name): void
    {
        file_put_contents("$this->directory/authorized", file_get_contents("$this->directory/$name.pub"), FILE_APPEND);
    }

    /** @return string the host key's fingerprint as ssh-keygen prints it */
    public function fingerprint(): string
    {
        return explode(
            ' ',
            (string) shell_exec('ssh-keygen -l -E sha256 -f '.escapeshellarg("$this->directory/host.pub")),
        )[1];
    }

    public function pin(): Pin
    {
        return Pin::ofHostKey(
            (string) base64_decode(explode(' ', (string) file_get_contents("$this->directory/host.pub"))[1], true),
        );
    }

    public function endpoint(string $password = StandinHost::PASSWORD, ?string $key = null): Endpoint
    {
        return new Endpoint(
            StandinHost::HOST,
            $this->port,
            Protocol::Sftp,
            self::LOGIN,
            new Secret($password),
            '127.0.0.1',
            null,
            $this->pin(),
            $key === null ? null : new Secret($key),
        );
    }

    public function log(): string
    {
        return (string) file_get_contents("$this->directory/log");
    }

    public function stop(): void
    {
        proc_terminate($this->process, SIGKILL);
        proc_close($this->process);
    }
}
