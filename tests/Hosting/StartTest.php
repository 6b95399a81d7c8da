<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Storage\Mark;
use PHPUnit\Framework\TestCase;
use Tests\Support\Scratch;

/** What keeps ./start from starting is said in one line, and nothing is left running. */
final class StartTest extends TestCase
{
    use Scratch;

    /**
     * @param  array<string, string>  $settings
     * @return array{int, list<string>} exit status and the lines on standard error
     */
    private function start(array $settings, string ...$arguments): array
    {
        $process = proc_open(
            [dirname(__DIR__, 2).'/start', ...$arguments],
            [1 => ['file', '/dev/null', 'w'], 2 => ['pipe', 'w']],
            $pipes,
            null,
            $settings + getenv(),
        );
        self::assertNotFalse($process);
        $said = (string) stream_get_contents($pipes[2]);

        return [proc_close($process), explode("\n", trim($said))];
    }

    public function test_a_taken_port_is_named_with_what_needs_it_and_where_to_change_it(): void
    {
        $directory = $this->directory();
        $socket = stream_socket_server('tcp://127.0.0.1:0');
        self::assertNotFalse($socket);
        $port = substr((string) strrchr((string) stream_socket_get_name($socket, false), ':'), 1);
        $mark = Mark::generate();
        foreach (['', '/contents', '/backups', '/manifests', '/runs', '/keys'] as $below) {
            $mark->putInto($directory.$below);
        }
        [$status, $lines] = $this->start(
            ['CELLARIUM_VAR' => $directory, 'DB_PORT' => $port, 'CELLARIUM_IDENTITY' => $mark->identity],
            '--background',
        );
        self::assertSame(
            [1, ["Port $port is taken, MariaDB needs it. Set DB_PORT in .env to a free one."]],
            [$status, $lines],
        );
        self::assertSame([], glob("$directory/run/*.pid"));
    }

    public function test_a_directory_that_cannot_be_written_is_named(): void
    {
        $file = $this->directory().'/file';
        touch($file);
        [$status, $lines] = $this->start(['CELLARIUM_VAR' => "$file/var"], '--background');
        self::assertSame([1, ["The directory $file/var cannot be written to."]], [$status, $lines]);
    }

    public function test_who_may_not_install_packages_is_told_the_one_line_that_does(): void
    {
        $root = dirname(__DIR__, 2);
        $script = "ROOT='$root'; id() { echo 1001; }; . '$root/bin/services.sh'; "
            ."need 'false' nginx-light; need 'false' php8.2-fpm php8.2-cli; need 'true' unzip; install_missing";
        exec('bash -c '.escapeshellarg($script).' 2>&1', $said, $status);
        $line = 'sudo apt-get install -y --no-install-recommends nginx-light php8.2-fpm php8.2-cli';
        self::assertSame(1, $status);
        self::assertSame(['Missing Debian packages. Run this first, then try again:', $line], $said);
        // What it names is there to be had; nothing is installed by asking.
        exec(str_replace(['sudo ', ' -y '], ['', ' --simulate '], $line).' 2>&1', $simulated, $status);
        self::assertSame(0, $status, implode("\n", $simulated));
    }

    public function test_an_unknown_word_is_answered_with_those_that_are_known(): void
    {
        self::assertSame(
            [1, ['Unknown: --bakground. Use ./start [--background] [--fresh]']],
            $this->start([], '--bakground'),
        );
    }
}
