<?php

declare(strict_types=1);

namespace Tests\Support;

/** Debian's vsftpd: LIST only, and a data connection has to resume the session unless it is told otherwise. */
final class Vsftpd extends FtpDaemon
{
    protected function command(): array
    {
        mkdir("$this->directory/empty");
        $yes = static fn (bool $value): string => $value ? 'YES' : 'NO';
        $lines = [
            'listen=YES',
            'listen_address=127.0.0.1',
            "listen_port=$this->port",
            'background=NO',
            'anonymous_enable=NO',
            'local_enable=YES',
            'write_enable=YES',
            'chmod_enable='.$yes($this->setsModes),
            'local_umask=022',
            'chroot_local_user=YES',
            'allow_writeable_chroot=YES',
            'force_dot_files=YES',
            'utf8_filesystem=NO',
            'seccomp_sandbox=NO',
            'isolate=NO',
            'isolate_network=NO',
            'pam_service_name=vsftpd',
            "secure_chroot_dir=$this->directory/empty",
            "vsftpd_log_file=$this->directory/log",
            'ssl_enable='.$yes($this->tls !== ''),
            "rsa_cert_file={$this->certificate()}",
            "rsa_private_key_file={$this->certificate()}",
            'implicit_ssl='.$yes($this->isImplicit()),
            'require_ssl_reuse='.$yes($this->reuse),
            'force_local_data_ssl=YES',
            'force_local_logins_ssl=YES',
            'ssl_ciphers=HIGH',
            'pasv_min_port='.($this->passivePorts[0] ?? 0),
            'pasv_max_port='.($this->passivePorts[1] ?? 0),
        ];
        file_put_contents("$this->directory/vsftpd.conf", implode("\n", $lines)."\n");

        return [self::unpacked('usr/sbin/vsftpd'), "$this->directory/vsftpd.conf"];
    }

    protected function environment(): array
    {
        $user = self::USER;
        file_put_contents(
            "$this->directory/passwd",
            self::LOGIN
                .":x:$user:$user:Harbour:$this->home:/bin/sh\n"
                    ."nobody:x:65534:65534:nobody:/:/bin/false\nroot:x:0:0:root:/root:/bin/sh\n",
        );
        file_put_contents("$this->directory/group", "harbour:x:$user:\nnogroup:x:65534:\nroot:x:0:\n");
        mkdir("$this->directory/pam");
        $matrix = self::unpacked('usr/lib/x86_64-linux-gnu/pam_wrapper/pam_matrix.so');
        file_put_contents("$this->directory/logins", self::LOGIN.':'.StandinHost::PASSWORD.":vsftpd\n");
        $rules = array_map(fn (string $kind): string => "$kind required $matrix passdb=$this->directory/logins\n", [
            'auth',
            'account',
            'session',
        ]);
        // Without "other" the wrapper complains, to the standard error that the daemon has given to its client.
        foreach (['vsftpd', 'other'] as $service) {
            file_put_contents("$this->directory/pam/$service", implode('', $rules));
        }

        return [
            'LD_PRELOAD' => 'libnss_wrapper.so '.self::unpacked('usr/lib/x86_64-linux-gnu/libpam_wrapper.so'),
            'NSS_WRAPPER_PASSWD' => "$this->directory/passwd",
            'NSS_WRAPPER_GROUP' => "$this->directory/group",
            'PAM_WRAPPER' => '1',
            'PAM_WRAPPER_DEBUGLEVEL' => '0',
            'PAM_WRAPPER_SERVICE_DIR' => "$this->directory/pam",
        ];
    }
}
