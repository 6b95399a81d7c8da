<?php

declare(strict_types=1);

namespace App\Work;

/**
 * Workers that have nothing to do wait here, and are woken by whoever orders something: one byte in a named pipe for
 * each piece of work. A byte that nobody reads, or a pipe that is not there, costs a worker's next look and no more.
 */
final class Wake
{
    private const EVERYBODY = 64;

    /** @var resource|null */
    private $pipe;

    public function __construct(private readonly string $file)
    {
    }

    public function one(): void
    {
        $pipe = $this->open();
        // A full pipe wakes everybody as it is.
        $pipe === null || @fwrite($pipe, '.');
    }

    /** Everybody who waits, and perhaps some who do not yet. */
    public function all(): void
    {
        $pipe = $this->open();
        $pipe === null || @fwrite($pipe, str_repeat('.', self::EVERYBODY));
    }

    /**
     * @param  float  $seconds  at most; less where a signal comes
     * @param  float  $behind  seconds that others are given to take what has come, who have open connections
     */
    public function await(float $seconds, float $behind): void
    {
        $until = hrtime(true) / 1e9 + $seconds;
        $pipe = $this->open();
        if ($pipe === null) {
            usleep((int) ($seconds * 1e6));

            return;
        }
        while (($left = $until - hrtime(true) / 1e9) > 0) {
            $read = [$pipe];
            $none = null;
            $changed = @stream_select($read, $none, $none, (int) $left, (int) (fmod($left, 1.0) * 1e6));
            if ($changed !== 1) {
                return;
            }
            usleep((int) ($behind * 1e6));
            if (fread($pipe, 1) === '.') {
                return;
            }
        }
    }

    /** @return resource|null */
    private function open()
    {
        if ($this->pipe === null) {
            is_dir(dirname($this->file)) || @mkdir(dirname($this->file), 0700, true);
            file_exists($this->file) || @posix_mkfifo($this->file, 0600);
            // Open both ways, so that neither side waits for the other.
            $pipe = @filetype($this->file) === 'fifo' ? @fopen($this->file, 'r+be') : false;
            if ($pipe !== false) {
                stream_set_blocking($pipe, false);
                stream_set_read_buffer($pipe, 0);
                $this->pipe = $pipe;
            }
        }

        return $this->pipe;
    }
}
