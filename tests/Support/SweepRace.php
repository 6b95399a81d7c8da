<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Storage\ContentSweep;
use Cellarium\Core\Storage\SealedContentStore;
use Cellarium\Core\Storage\WorkInProgress;
use RuntimeException;

/** A forked process that clears a store, or keeps contents in it, again and again until it is killed. */
final readonly class SweepRace
{
    private function __construct(private int $process)
    {
    }

    /**
     * Removes all contents but those that are named in the files of DIRECTORY/kept. Nothing is spared for the day it is
     * usually spared for: only work in progress, and being found again, protect. A clock eight days ahead deletes at
     * once what was moved aside before.
     */
    public static function sweeping(string $directory): self
    {
        return self::start(static function () use ($directory): \Closure {
            $settings = TestStore::settings("$directory/contents");
            $work = $settings->work();

            return static fn () => (new ContentSweep($settings->objects(), $work))->sweep(
                self::references($directory),
                time(),
                time() + random_int(0, 1) * 8 * 86400,
                true,
            );
        });
    }

    /** Keeps contents that others have, and writes down what it refers to once it has them. */
    public static function taking(string $directory, int $seed): self
    {
        return self::start(static function () use ($directory, $seed): \Closure {
            $settings = TestStore::settings("$directory/contents");
            $work = $settings->work();
            $store = new SealedContentStore($settings->objects(), $settings->keys, $work);
            mt_srand($seed);

            return static fn () => self::take($directory, $store, $work);
        });
    }

    public function kill(): void
    {
        posix_kill($this->process, SIGKILL);
        pcntl_waitpid($this->process, $status);
        // Whoever is killed says nothing; one that failed before has said why, and ended itself.
        pcntl_wifsignaled($status) || throw new RuntimeException('It had failed before it was killed.');
    }

    private static function take(string $directory, SealedContentStore $store, WorkInProgress $work): void
    {
        $store->begin();
        $chosen = [];
        for ($number = 0; $number < 5; $number++) {
            $text = 'contents '.mt_rand(0, 600);
            $sha256 = hash('sha256', $text);
            $chosen[] = mt_rand(0, 1) === 0 && $store->refresh($sha256) ? $sha256 : $store->put([$text])->sha256;
        }
        $name = "$directory/kept/".bin2hex(random_bytes(6));
        file_put_contents($name, implode("\n", $chosen)."\n");
        rename($name, "$name.txt");
        $work->end();
    }

    /** @param  \Closure(): \Closure  $prepare  called in the new process, gives what is done again and again */
    private static function start(\Closure $prepare): self
    {
        [$here, $there] = stream_socket_pair(STREAM_PF_UNIX, STREAM_SOCK_STREAM, 0)
            ?: throw new RuntimeException('No pair of sockets was given.');
        $process = pcntl_fork();
        if ($process === 0) {
            try {
                $again = $prepare();
                fwrite($there, 'x');
                while (true) {
                    $again();
                }
            } catch (\Throwable $failure) {
                fwrite(STDERR, "$failure\n");
            }
            pcntl_exec('/bin/false'); // No more of the tests goes on in this process.
        }
        fclose($there);
        fread($here, 1);

        return new self($process);
    }

    /** @return iterable<string> */
    private static function references(string $directory): iterable
    {
        foreach (glob("$directory/kept/*.txt") ?: [] as $file) {
            yield from file($file, FILE_IGNORE_NEW_LINES) ?: [];
        }
    }
}
