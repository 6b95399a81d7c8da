<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Connection\Endpoint;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Credential\Secret;
use RuntimeException;

/** The stand-in host as a process of its own on free ports, with one account "harbour" that has two sites. */
final class StandinHost
{
    public const LOGIN = 'harbour';

    public const PASSWORD = 'Tide-table-4711-Known';

    public const TOKEN = 'token-harbour-0815-Known';

    public const HOST = 'ftp.host.example';

    public readonly string $directory;

    public readonly string $home;

    public readonly int $ftpPort;

    public readonly int $webPort;

    public readonly int $controlPort;

    public readonly int $implicitPort;

    /** @var resource */
    private $process;

    /** @var array<string, string> directories of worlds as they were laid, by what was laid */
    private static array $laid = [];

    /** @param  array<string, mixed>  $account replaces facts of the account */
    public function __construct(array $account = [], int $idleSeconds = 60)
    {
        $this->directory = ScratchDisk::path().'/standin-'.bin2hex(random_bytes(6));
        $standin = dirname(__DIR__, 2).'/standin/bin/standin';
        $this->lay($standin, [
            'accounts' => [
                $account + [
                    'login' => self::LOGIN,
                    'password' => self::PASSWORD,
                    'host' => self::HOST,
                    'company' => 'Harbourhost',
                    'token' => self::TOKEN,
                    'space_limit' => 5_000_000,
                    'sites' => [
                        ['domain' => 'site.example', 'document_root' => '/www/site.example'],
                        ['domain' => 'other.example', 'document_root' => '/www/other.example'],
                    ],
                ],
            ],
        ]);
        $this->home = "$this->directory/homes/".self::LOGIN;
        $process = proc_open(
            [
                PHP_BINARY,
                $standin,
                'serve',
                '--dir',
                $this->directory,
                '--ftp-port',
                '0',
                '--web-port',
                '0',
                '--control-port',
                '0',
                '--ftps-port',
                '0',
                '--idle',
                (string) $idleSeconds,
            ],
            [1 => ['pipe', 'w'], 2 => ['file', "$this->directory/errors", 'w']],
            $pipes,
        );
        $line = $process === false ? false : fgets($pipes[1]);
        if ($process === false || $line === false) {
            throw new RuntimeException('The stand-in did not start: '.file_get_contents("$this->directory/errors"));
        }
        $this->process = $process;
        $ports = array_map(
            static fn (string $address): int => (int) substr((string) strrchr($address, ':'), 1),
            json_decode($line, true),
        );
        [$this->ftpPort, $this->webPort, $this->controlPort, $this->implicitPort] = [
            $ports['ftp'],
            $ports['web'],
            $ports['control'],
            $ports['ftps'],
        ];
        $names = self::HOST.' site.example other.example rehearsal.example';
        file_put_contents("$this->directory/hosts", "127.0.0.1 $names\n");
    }

    /**
     * Each world is laid once in a process, and copied for every host that is to have it.
     *
     * @param  array<string, mixed>  $world
     */
    private function lay(string $standin, array $world): void
    {
        $json = json_encode($world, JSON_THROW_ON_ERROR);
        $laid = self::$laid[$json] ?? null;
        if ($laid === null) {
            $laid = ScratchDisk::path().'/standin-laid-'.bin2hex(random_bytes(6));
            mkdir($laid);
            file_put_contents("$laid/world-to-lay.json", $json);
            $this->run(PHP_BINARY, $standin, 'lay', '--dir', $laid, '--world', "$laid/world-to-lay.json");
            self::$laid[$json] = $laid;
            $maker = getmypid();
            register_shutdown_function(static fn () => getmypid() === $maker && exec('rm -rf '.escapeshellarg($laid)));
        }
        $this->run('cp', '-a', $laid, $this->directory);
    }

    private function run(string ...$command): void
    {
        exec(implode(' ', array_map(escapeshellarg(...), $command)).' 2>&1', $said, $code);
        if ($code !== 0) {
            throw new RuntimeException(implode("\n", $said));
        }
    }

    public function endpoint(
        Protocol $protocol = Protocol::FtpsExplicit,
        string $login = self::LOGIN,
        string $password = self::PASSWORD,
    ): Endpoint {
        return new Endpoint(
            self::HOST,
            $protocol === Protocol::FtpsImplicit ? $this->implicitPort : $this->ftpPort,
            $protocol,
            $login,
            new Secret($password),
            '127.0.0.1',
            "$this->directory/ca.pem",
        );
    }

    /** @param  array<string, mixed>  $faults */
    public function faults(array $faults): void
    {
        $token = json_decode((string) file_get_contents("$this->directory/world.json"), true)['operator_token'];
        [$status] = $this->control('PUT', '/operator/faults/'.self::LOGIN, $token, $faults);
        if ($status !== 200) {
            throw new RuntimeException("The faults were not taken: $status");
        }
    }

    /** What a person at the provider does: a login that was not made from here. */
    public function makeFtpUser(
        string $name,
        string $password = 'somebody-elses-word',
        string $directory = '/www',
    ): void {
        $this->control(
            'POST',
            '/v1/ftp-users',
            self::TOKEN,
            [
                'name' => $name,
                'password' => $password,
                'directory' => $directory,
                'space_limit' => null,
            ],
        );
    }

    /** @param  array<string, mixed>  $change */
    public function changeFtpUser(string $name, array $change): void
    {
        $this->control('PATCH', "/v1/ftp-users/$name@site.example", self::TOKEN, $change);
    }

    /** @return array<string, mixed>|null what the host has under this name */
    public function ftpUser(string $name): ?array
    {
        $users = $this->control('GET', '/v1/ftp-users', self::TOKEN)[1]['ftp_users'];

        return array_column($users, null, 'login')["$name@site.example"] ?? null;
    }

    /**
     * @param  array<string, mixed>|null  $body
     * @return array{int, array<mixed>}
     */
    public function control(string $method, string $path, string $token, ?array $body = null): array
    {
        $context = stream_context_create([
            'http' => [
                'method' => $method,
                'ignore_errors' => true,
                'header' => "Authorization: Bearer $token\r\nContent-Type: application/json\r\nConnection: close",
                'content' => $body === null ? '' : json_encode($body, JSON_THROW_ON_ERROR | JSON_FORCE_OBJECT),
            ],
        ]);
        $text = (string) file_get_contents("http://127.0.0.1:$this->controlPort$path", false, $context);
        preg_match('/ (\d{3}) /', $http_response_header[0] ?? '', $match);

        return [(int) ($match[1] ?? 0), (array) json_decode($text, true)];
    }

    public function errors(): string
    {
        return (string) file_get_contents("$this->directory/errors");
    }

    public function stop(): void
    {
        Processes::end($this->process);
        exec('rm -rf '.escapeshellarg($this->directory));
    }
}
