<?php

declare(strict_types=1);

namespace Tests\Support;

/** Debian's proftpd with mod_tls as it comes: machine listings, and sessions that have to be resumed. */
final class Proftpd extends FtpDaemon
{
    protected function command(): array
    {
        $user = self::USER;
        file_put_contents(
            "$this->directory/users",
            self::LOGIN.':'.self::passwordHash().":$user:$user::$this->home:/bin/sh\n",
        );
        file_put_contents("$this->directory/groups", "harbour:x:$user:\n");
        chmod("$this->directory/users", 0600);
        $options = [
            ...$this->reuse ? [] : ['NoSessionReuseRequired'],
            ...$this->isImplicit() ? ['UseImplicitSSL'] : [],
        ];
        $lines = [
            'ServerName "Harbourhost"',
            'ServerType standalone',
            'DefaultAddress 127.0.0.1',
            'SocketBindTight on',
            "Port $this->port",
            'UseIPv6 off',
            'User nobody',
            'Group nogroup',
            'Umask 022',
            'DefaultRoot ~',
            'AllowOverwrite on',
            'RequireValidShell off',
            'AuthOrder mod_auth_file.c',
            "AuthUserFile $this->directory/users",
            "AuthGroupFile $this->directory/groups",
            "PidFile $this->directory/pid",
            "ScoreboardFile $this->directory/scoreboard",
            'DelayTable none',
            "SystemLog $this->directory/log",
            'WtmpLog off',
            'ListOptions "-a"',
            ...($this->setsModes ? [] : ['<Limit SITE_CHMOD>', 'DenyAll', '</Limit>']),
            'ModulePath '.self::unpacked('usr/lib/proftpd'),
            'LoadModule mod_digest.c',
            'LoadModule mod_copy.c',
            ...($this->passivePorts === null ? [] : ['PassivePorts '.implode(' ', $this->passivePorts)]),
            ...($this->tls === '' ? [] : [
                'LoadModule mod_tls.c',
                'TLSEngine on',
                'TLSRequired on',
                "TLSLog $this->directory/log",
                "TLSECCertificateFile {$this->certificate()}",
                "TLSECCertificateKeyFile {$this->certificate()}",
                'TLSProtocol '.($this->tls === 'any' ? 'TLSv1.2 TLSv1.3' : "TLSv$this->tls"),
                ...($options === [] ? [] : ['TLSOptions '.implode(' ', $options)]),
            ]),
        ];
        file_put_contents("$this->directory/proftpd.conf", implode("\n", $lines)."\n");

        return [
            self::unpacked('usr/sbin/proftpd'),
            '--nodaemon',
            '--quiet',
            '--config',
            "$this->directory/proftpd.conf",
        ];
    }
}
