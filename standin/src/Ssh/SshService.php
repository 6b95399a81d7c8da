<?php

declare(strict_types=1);

namespace Cellarium\Standin\Ssh;

use RuntimeException;

/**
 * The SSH service of the hosting company: Debian's openssh-server for SFTP alone, run by whoever runs the stand-in.
 *
 * Its logins are made up and exist nowhere else: libnss-wrapper shows them to this one server. All of them act as the
 * user who runs it, and land in their account's directory without being jailed there, as on many real hosts.
 */
final readonly class SshService
{
    private string $own;

    /** @param  string  $directory  where the world lies */
    public function __construct(private string $directory)
    {
        $this->own = "$directory/ssh";
    }

    /**
     * Writes keys and logins; keys that are there stay.
     *
     * @param  list<array{login: string, password: string, ssh: string}>  $accounts  "ssh" is "password", or "key"
     *     for those that have no password there
     */
    public function prepare(array $accounts, int $port): void
    {
        is_dir($this->own)
            || mkdir($this->own, 0700, true)
            || throw new RuntimeException("$this->own could not be made.");
        $this->key('host');
        [$user, $group] = [posix_geteuid(), posix_getegid()];
        $passwd = "sshd:x:100:65534::/run/sshd:/usr/sbin/nologin\n";
        $shadow = '';
        foreach ($accounts as $account) {
            $login = $account['login'];
            $passwd .= "$login:x:$user:$group:$login:$this->directory/homes/$login:/bin/sh\n";
            $shadow
                .= "$login:"
                .($account['ssh'] === 'password'
                    ? crypt($account['password'], '$6$'.bin2hex(random_bytes(6)).'$')
                    : '*')
                .":20000:0:99999:7:::\n";
            $account['ssh'] === 'key' && copy($this->key($login), "$this->own/$login.authorized");
        }
        foreach (
            [
                'passwd' => $passwd,
                'shadow' => $shadow,
                'group' => "hosting:x:$group:\n",
                'sshd_config' => $this->settings($port),
            ] as $name => $text
        ) {
            file_put_contents("$this->own/$name", $text) === strlen($text)
                || throw new RuntimeException("$this->own/$name could not be written.");
        }
        if (posix_geteuid() === 0 && ! is_dir('/run/sshd') && ! mkdir('/run/sshd', 0755)) {
            throw new RuntimeException('/run/sshd could not be made.');
        }
    }

    /** Becomes the server. */
    public function serve(): never
    {
        pcntl_exec(
            '/usr/sbin/sshd',
            ['-D', '-e', '-f', "$this->own/sshd_config"],
            [
                'PATH' => (string) getenv('PATH'),
                'LD_PRELOAD' => 'libnss_wrapper.so',
                'NSS_WRAPPER_PASSWD' => "$this->own/passwd",
                'NSS_WRAPPER_SHADOW' => "$this->own/shadow",
                'NSS_WRAPPER_GROUP' => "$this->own/group",
            ],
        );
        throw new RuntimeException('sshd did not start; install openssh-server and libnss-wrapper.');
    }

    /** @return string the file of the public half */
    private function key(string $name): string
    {
        if (! is_file("$this->own/$name.pub")) {
            exec(
                'ssh-keygen -q -t ed25519 -C '
                    .escapeshellarg("$name of the stand-in")
                    .' -N "" -f '
                    .escapeshellarg("$this->own/$name")
                    .' 2>&1 </dev/null',
                $said,
                $status,
            );
            $status === 0 || throw new RuntimeException('ssh-keygen: '.implode(' ', $said));
        }

        return "$this->own/$name.pub";
    }

    private function settings(int $port): string
    {
        return implode("\n", [
            "ListenAddress 127.0.0.1:$port",
            "HostKey $this->own/host",
            "PidFile $this->own/pid",
            "AuthorizedKeysFile $this->own/%u.authorized",
            'StrictModes no',
            'UsePAM no',
            'PermitRootLogin yes',
            'KbdInteractiveAuthentication no',
            'Subsystem sftp internal-sftp',
            'ForceCommand internal-sftp',
            'AllowTcpForwarding no',
            'X11Forwarding no',
            'PermitTunnel no',
        ])."\n";
    }
}
