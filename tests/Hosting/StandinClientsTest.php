<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Tests\Support\HostTestCase;
use Tests\Support\StandinHost;

/** The stand-in's FTP service against clients nobody here wrote: the curl program and PHP's own ftp functions. */
final class StandinClientsTest extends HostTestCase
{
    /** @return array{int, string} exit status and what it printed */
    private function curl(string ...$arguments): array
    {
        $host = self::host();
        $command = [
            'curl',
            '-sS',
            '--max-time',
            '20',
            '--noproxy',
            '*',
            '--resolve',
            StandinHost::HOST.":$host->ftpPort:127.0.0.1",
            '--cacert',
            "$host->directory/ca.pem",
            '-u',
            StandinHost::LOGIN.':'.StandinHost::PASSWORD,
            ...$arguments,
        ];
        exec(implode(' ', array_map(escapeshellarg(...), $command)).' 2>&1', $lines, $status);

        return [$status, implode("\n", $lines)];
    }

    private function url(string $path): string
    {
        return 'ftp://'.StandinHost::HOST.':'.self::host()->ftpPort.$path;
    }

    public function test_curl_lists_uploads_fetches_and_renames_plain_and_with_tls(): void
    {
        $directory = $this->directory();
        file_put_contents("$directory/up.bin", $bytes = random_bytes(400_000));
        foreach (
            [
                [],
                ['--ssl-reqd'],
                ['--ssl-reqd', '--tls-max', '1.2'],
                ['--disable-epsv'],
                ['--ftp-method', 'nocwd'],
            ] as $round => $options
        ) {
            self::assertSame(
                [0, ''],
                $this->curl(...$options, ...['-T', "$directory/up.bin", $this->url("/www/r%20$round.bin")]),
            );
            self::assertSame(
                0,
                $this->curl(...$options, ...['-o', "$directory/down.bin", $this->url("/www/r%20$round.bin")])[0],
            );
            self::assertSame($bytes, file_get_contents("$directory/down.bin"));
            self::assertStringContainsString("r $round.bin", $this->curl(...$options, ...[$this->url('/www/')])[1]);
            [$status, $listing] = $this->curl(
                ...$options,
                ...['-X', 'MLSD', '-Q', "-RNFR /www/r $round.bin", '-Q', "-RNTO /www/ü$round.bin", $this->url('/www/')],
            );
            self::assertSame(0, $status, $listing);
            self::assertSame($bytes, file_get_contents(self::host()->home."/www/ü$round.bin"));
        }
    }

    public function test_curl_resumes_an_upload_and_a_download(): void
    {
        $directory = $this->directory();
        $bytes = random_bytes(90_000);
        file_put_contents("$directory/whole.bin", $bytes);
        file_put_contents(self::host()->home.'/half.bin', substr($bytes, 0, 40_000));
        self::assertSame([0, ''], $this->curl('-C', '-', '-T', "$directory/whole.bin", $this->url('/half.bin')));
        self::assertSame($bytes, file_get_contents(self::host()->home.'/half.bin'));
        file_put_contents("$directory/part.bin", substr($bytes, 0, 12_345));
        self::assertSame(0, $this->curl('-C', '-', '-o', "$directory/part.bin", $this->url('/half.bin'))[0]);
        self::assertSame($bytes, file_get_contents("$directory/part.bin"));
    }

    public function test_no_path_link_or_encoding_leaves_the_jail(): void
    {
        $host = self::host();
        file_put_contents("$host->directory/outside.txt", 'outside');
        @symlink($host->directory, "$host->home/way-out");
        @symlink("$host->directory/outside.txt", "$host->home/file-out");
        foreach (
            [
                '/../outside.txt',
                '/../../outside.txt',
                '/way-out/outside.txt',
                '/file-out',
                '/%2e%2e/outside.txt',
                '/..%2foutside.txt',
                '/%c0%ae%c0%ae/outside.txt',
                '//../outside.txt',
            ] as $path
        ) {
            [$status, $said] = $this->curl('--path-as-is', '--ftp-method', 'nocwd', $this->url($path));
            self::assertNotSame(0, $status, $path);
            self::assertStringNotContainsString('outside', str_replace('outside.txt', '', $said), $path);
        }
        self::assertNotSame(0, $this->curl('-Q', 'RNFR /www', '-Q', 'RNTO /way-out/www', $this->url('/'))[0]);
        self::assertNotSame(0, $this->curl('-Q', 'MKD ../made', $this->url('/way-out/'))[0]);
        self::assertDirectoryExists("$host->home/www");
    }

    public function test_phps_own_functions_work_with_it(): void
    {
        $host = self::host();
        $ftp = ftp_connect('127.0.0.1', $host->ftpPort, 10);
        self::assertNotFalse($ftp);
        self::assertFalse(@ftp_login($ftp, StandinHost::LOGIN, 'wrong'));
        self::assertTrue(ftp_login($ftp, StandinHost::LOGIN, StandinHost::PASSWORD));
        ftp_pasv($ftp, true);
        self::assertSame('/', ftp_pwd($ftp));
        self::assertSame('/neu', ftp_mkdir($ftp, '/neu'));
        $local = $this->directory().'/x.txt';
        file_put_contents($local, "one\ntwo\n");
        self::assertTrue(ftp_put($ftp, '/neu/x.txt', $local, FTP_BINARY));
        self::assertSame(8, ftp_size($ftp, '/neu/x.txt'));
        self::assertEqualsWithDelta(time(), ftp_mdtm($ftp, '/neu/x.txt'), 5);
        self::assertContains(
            '/neu/x.txt',
            array_map(
                static fn (string $name): string => str_starts_with($name, '/') ? $name : "/neu/$name",
                (array) ftp_nlist($ftp, '/neu'),
            ),
        );
        self::assertSame(
            'x.txt',
            array_values(
                array_filter((array) ftp_mlsd($ftp, '/neu'), static fn (array $row): bool => $row['type'] === 'file'),
            )[0]['name'],
        );
        self::assertSame(0600, ftp_chmod($ftp, 0600, '/neu/x.txt'));
        self::assertTrue(ftp_append($ftp, '/neu/x.txt', $local, FTP_BINARY));
        self::assertSame(16, ftp_size($ftp, '/neu/x.txt'));
        self::assertSame(
            '213 Modify=20260102030405; /neu/x.txt',
            ftp_raw($ftp, 'MFMT 20260102030405 /neu/x.txt')[0] ?? '',
        );
        self::assertSame(gmmktime(3, 4, 5, 1, 2, 2026), ftp_mdtm($ftp, '/neu/x.txt'));
        self::assertTrue(ftp_rename($ftp, '/neu/x.txt', '/neu/y.txt'));
        self::assertFalse(@ftp_rmdir($ftp, '/neu'));
        self::assertTrue(ftp_delete($ftp, '/neu/y.txt'));
        self::assertTrue(ftp_rmdir($ftp, '/neu'));
        self::assertFalse(@ftp_chdir($ftp, '/neu'));
        self::assertStringStartsWith('502', ftp_raw($ftp, 'PORT 127,0,0,1,4,1')[0] ?? '');
        self::assertStringStartsWith('225', ftp_raw($ftp, 'ABOR')[0] ?? '');
        ftp_close($ftp);
    }

    public function test_abor_ends_a_transfer_in_its_middle_and_the_session_goes_on(): void
    {
        $host = self::host();
        file_put_contents("$host->home/long.bin", str_repeat('x', 4_000_000));
        $control = stream_socket_client("tcp://127.0.0.1:$host->ftpPort", timeout: 10);
        self::assertNotFalse($control);
        stream_set_timeout($control, 20);
        $say = static function (string $line) use ($control): string {
            $line === '' || fwrite($control, "$line\r\n");

            return (string) fgets($control);
        };
        self::assertStringStartsWith('220', $say(''));
        $say('USER '.StandinHost::LOGIN);
        self::assertStringStartsWith('230', $say('PASS '.StandinHost::PASSWORD));
        // Alone, and as RFC 959 has it: behind Telnet's interrupt and data mark.
        foreach (['RETR /long.bin' => 'ABOR', 'STOR /half.bin' => "\xFF\xF4\xFF\xF2ABOR"] as $transfer => $abort) {
            self::assertSame(1, preg_match('/\|\|\|(\d+)\|/', $say('EPSV'), $found));
            $data = stream_socket_client("tcp://127.0.0.1:$found[1]", timeout: 10);
            self::assertNotFalse($data);
            self::assertStringStartsWith('150', $say($transfer));
            str_starts_with($transfer, 'RETR')
                ? self::assertSame(10, strlen((string) fread($data, 10)))
                : self::assertSame(10, fwrite($data, 'ten bytes.'));
            self::assertStringStartsWith('426', $say($abort), $transfer);
            self::assertStringStartsWith('226', $say(''));
            stream_set_timeout($data, 20);
            self::assertLessThan(
                4_000_000,
                strlen((string) @stream_get_contents($data)) + 10,
                'the data connection ended',
            );
            self::assertStringStartsWith('257', $say('PWD'));
            self::assertStringStartsWith('225', $say('ABOR'), 'nothing is left to abort');
        }
    }

    public function test_three_hundred_connections_at_once(): void
    {
        $host = self::host();
        $sockets = [];
        for ($count = 0; $count < 300; $count++) {
            $socket = stream_socket_client("tcp://127.0.0.1:$host->ftpPort", timeout: 10);
            self::assertNotFalse($socket);
            fwrite($socket, 'USER '.StandinHost::LOGIN."\r\nPASS ".StandinHost::PASSWORD."\r\nPWD\r\n");
            $sockets[] = $socket;
        }
        foreach ($sockets as $socket) {
            stream_set_timeout($socket, 20);
            self::assertSame(
                ['220', '331', '230', '257'],
                array_map(static fn (): string => substr((string) fgets($socket), 0, 3), range(1, 4)),
            );
        }
    }

    public function test_a_full_account_answers_552_and_an_idle_client_421(): void
    {
        $file = $this->directory().'/big.bin';
        file_put_contents($file, str_repeat('x', 6_000_000));
        [$status, $said] = $this->curl('-T', $file, $this->url('/big.bin'));
        self::assertSame(70, $status, "curl's number for 552: $said");
        $brief = new StandinHost([], 1);
        try {
            $socket = stream_socket_client("tcp://127.0.0.1:$brief->ftpPort", timeout: 10);
            self::assertNotFalse($socket);
            stream_set_timeout($socket, 10);
            self::assertStringStartsWith('220', (string) fgets($socket));
            self::assertStringStartsWith('421', (string) fgets($socket));
            self::assertFalse(fgets($socket));
        } finally {
            $brief->stop();
        }
    }
}
