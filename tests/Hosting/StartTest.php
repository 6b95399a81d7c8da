<?php

declare(strict_types=1);

namespace Tests\Hosting;

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
        [$status, $lines] = $this->start(['CELLARIUM_VAR' => $directory, 'DB_PORT' => $port], '--background');
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

    public function test_an_unknown_word_is_answered_with_those_that_are_known(): void
    {
        self::assertSame(
            [1, ['Unknown: --bakground. Use ./start [--background] [--fresh]']],
            $this->start([], '--bakground'),
        );
    }
}
