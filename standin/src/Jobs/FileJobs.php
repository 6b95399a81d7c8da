<?php

declare(strict_types=1);

namespace Cellarium\Standin\Jobs;

use Amp\Process\Process;
use Cellarium\Standin\Control\Body;
use Cellarium\Standin\Ftp\Jail;
use Cellarium\Standin\World\DiskUse;
use Cellarium\Standin\World\HostedAccount;
use InvalidArgumentException;

use function Amp\async;
use function Amp\ByteStream\splitLines;

/** The jobs of all accounts, begun and ended, for as long as the host runs. */
final class FileJobs
{
    public const KINDS = ['pack', 'unpack', 'move', 'dump', 'restore'];

    private const MOST_MOVES = 10_000;

    /** @var array<string, array<string, FileJob>> by account and id */
    private array $jobs = [];

    public function find(HostedAccount $account, string $id): ?FileJob
    {
        return $this->jobs[$account->name][$id] ?? null;
    }

    /**
     * Begins a job, or finds the one that was begun under this id: an answer that was lost can be asked for again.
     *
     * @throws InvalidArgumentException when it cannot be begun
     */
    public function begin(HostedAccount $account, string $id, Body $body): FileJob
    {
        $known = $this->find($account, $id);
        if ($known !== null) {
            return $known;
        }
        $kind = $body->text('kind');
        $job = new FileJob($id, $kind);
        $work = match ($kind) {
            'move' => $this->move($account, $job, $body),
            'pack', 'unpack' => $this->archive($account, $job, $body),
            'dump' => $this->dump($account, $job, $body),
            'restore' => $this->restore($account, $job, $body),
            default => throw new InvalidArgumentException('kind: '.implode(', ', self::KINDS)),
        };
        $this->jobs[$account->name][$id] = $job;
        in_array($kind, ['move', 'dump', 'restore'], true) ? $work() : async($work)->ignore();

        return $job;
    }

    /** @return \Closure(): void */
    private function move(HostedAccount $account, FileJob $job, Body $body): \Closure
    {
        $moves = [];
        foreach ($body->pairs('moves', 'from', 'to') as [$from, $to]) {
            $moves[] = [$this->path($account, $from), $this->path($account, $to)];
        }
        if ($moves === [] || count($moves) > self::MOST_MOVES) {
            throw new InvalidArgumentException('moves: 1 to '.self::MOST_MOVES);
        }

        return static function () use ($account, $job, $moves): void {
            $job->total = count($moves);
            foreach ($moves as [$from, $to]) {
                // Never over what is there: a file would be lost, and a directory holds something.
                $job->refused[] = match (true) {
                    ! file_exists($from) && ! is_link($from) => 'There is no such file or directory.',
                    file_exists($to) || is_link($to) => 'There is something of that name.',
                    $account->faults->pinned && is_dir($from) => 'The directory is in use.',
                    default => @rename($from, $to) ? '' : 'It cannot be moved.',
                };
                $job->done++;
            }
            $job->end(null);
        };
    }

    /** @return \Closure(): void */
    private function dump(HostedAccount $account, FileJob $job, Body $body): \Closure
    {
        $file = $this->path($account, $body->text('file'));
        $sql = (new Databases($account))->dump($body->text('database'));
        $sql ?? throw new InvalidArgumentException('database: there is none of that name');

        return static function () use ($account, $job, $file, $sql): void {
            $job->total = 1;
            $fails = $account->faults->jobsFailAt !== null || strlen($sql) > $account->spaceLimit() - $account->used();
            if (! $fails && @file_put_contents("$file.part", $sql) === strlen($sql) && rename("$file.part", $file)) {
                $account->addUsed(strlen($sql));
                $job->done = 1;
                $job->end(null);

                return;
            }
            @unlink("$file.part");
            $job->end('The database could not be written out.');
        };
    }

    /** @return \Closure(): void */
    private function restore(HostedAccount $account, FileJob $job, Body $body): \Closure
    {
        $file = $this->path($account, $body->text('file'));
        is_file($file) || throw new InvalidArgumentException('file: not there');
        $databases = new Databases($account);
        $name = $body->text('database');
        $databases->dump($name) ?? throw new InvalidArgumentException('database: there is none of that name');

        return static function () use ($account, $job, $databases, $name, $file): void {
            $job->total = 1;
            $fails = $account->faults->jobsFailAt !== null;
            $trouble = $fails ? 'The job was broken off.' : $databases->restore(
                $name,
                (string) file_get_contents($file),
            );
            $trouble === null && $job->done = 1;
            $job->end($trouble);
        };
    }

    /** @return \Closure(): void */
    private function archive(HostedAccount $account, FileJob $job, Body $body): \Closure
    {
        $directory = $this->path($account, $body->text($job->kind === 'unpack' ? 'into' : 'directory'));
        $archive = $this->path($account, $body->text('archive'));
        if ($job->kind === 'unpack' ? ! is_file($archive) : ! is_dir($directory)) {
            throw new InvalidArgumentException(($job->kind === 'unpack' ? 'archive' : 'directory').': not there');
        }
        $task = [
            'kind' => $job->kind,
            'directory' => $directory,
            'archive' => $archive,
            'room' => max(0, $account->spaceLimit() - $account->used()),
        ];
        $fails = $account->faults->jobsFailAt;

        return static function () use ($account, $job, $task, $fails): void {
            $process = Process::start([PHP_BINARY, dirname(__DIR__, 2).'/bin/archive-work']);
            $process->getStdin()->write(json_encode($task, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES)."\n");
            $process->getStdin()->end();
            $trouble = 'The job was broken off.';
            foreach (splitLines($process->getStdout()) as $line) {
                $told = new Body($line);
                if ($told->has('total')) {
                    $job->done = $told->number('done') ?? 0;
                    $job->total = $told->number('total') ?? 0;
                } else {
                    $trouble = $told->has('stored') ? null : $told->text('trouble');
                }
                if ($fails !== null && $job->done >= $fails) {
                    $process->kill();
                    $trouble = 'The job was broken off.';
                    break;
                }
            }
            $process->join();
            // What a broken-off packing has begun has no name of its own.
            if ($trouble !== null && $task['kind'] === 'pack') {
                array_map(unlink(...), glob(addcslashes($task['archive'], '*?[]\\').'.part*') ?: []);
            }
            $account->addUsed(DiskUse::of($account->home) - $account->used());
            $job->end($trouble);
        };
    }

    /** @throws InvalidArgumentException */
    private function path(HostedAccount $account, string $path): string
    {
        $jail = new Jail($account->home);
        $virtual = str_starts_with($path, '/') ? $jail->virtual('/', $path) : null;
        $real = $virtual === null || $virtual === '/' ? null : $jail->real($virtual);

        return $real ?? throw new InvalidArgumentException('path: not in this account');
    }
}
