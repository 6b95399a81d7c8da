<?php

declare(strict_types=1);

namespace Tests\Support;

/** Debian's pure-ftpd with a database of its own. */
final class PureFtpd extends FtpDaemon
{
    protected function command(): array
    {
        $user = self::USER;
        file_put_contents(
            "$this->directory/users",
            self::LOGIN.':'.self::passwordHash().":$user:$user::$this->home/./::::::::::::\n",
        );
        $make = sprintf(
            '%s mkdb %s -f %s',
            escapeshellarg(self::unpacked('usr/bin/pure-pw')),
            escapeshellarg("$this->directory/users.pdb"),
            escapeshellarg("$this->directory/users"),
        );
        exec(
            'LD_LIBRARY_PATH='.escapeshellarg(self::unpacked('usr/lib/x86_64-linux-gnu'))." $make 2>&1",
            $said,
            $status,
        );
        $status === 0 || throw new \RuntimeException(implode("\n", $said));
        $tls = match ($this->tls) {
            '' => [],
            '1.2' => ['-Y', '3', '-2', $this->certificate(), '-J', 'HIGH:-TLSv1.3'],
            default => ['-Y', '3', '-2', $this->certificate()],
        };

        return [
            self::unpacked('usr/sbin/pure-ftpd'),
            ...['-S', "127.0.0.1,$this->port", '-l', "puredb:$this->directory/users.pdb", '-g', "$this->directory/pid"],
            ...['-A', '-E', '-H', '-D', '-U', '022:022', '-C', '100', '-c', '100', '-u', '1000'],
            ...$this->passivePorts === null ? [] : ['-p', implode(':', $this->passivePorts)],
            ...$tls,
            ...$this->setsModes ? [] : ['-R'],
        ];
    }
}
