<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

use Cellarium\Core\Connection\ComputesHashes;
use Cellarium\Core\Connection\CopiesFiles;
use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\LooksAgain;
use Cellarium\Core\Connection\NamesOneByOne;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Connection\RenamesTogether;
use Cellarium\Core\Connection\ResumesSending;
use Cellarium\Core\Connection\SetsModes;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Storage\StoreFault;

/** Does a job on a remote directory; sizes are compared here, so that no caller can forget to. */
final readonly class JobRunner
{
    /** Smaller files are sent from the beginning, which takes no longer than asking how much is there. */
    private const RESUMED_FROM = 1_000_000;

    /** A file that holds more than it was listed with, by this in bytes, is read no further: it may have no end. */
    private const MARGIN = 65_536;

    /** The same of one that is read again because it changes, beside twice its size. */
    private const GROWS_BY = 16_000_000;

    /** @param  ContentStore|null  $store  for jobs that keep, send or compare contents */
    public function __construct(private RemoteDirectory $remote, private ?ContentStore $store = null)
    {
    }

    /** @throws RemoteFailure LocalFile for what the store could not do */
    public function run(Job $job): JobResult
    {
        try {
            return $this->do($job);
        } catch (StoreFailure $failure) {
            $why = match ($failure->fault) {
                StoreFault::Missing, StoreFault::Damaged => ', whose stored copy is missing or damaged',
                StoreFault::KeyMissing => ', whose stored copy is sealed with a key that is not there',
                StoreFault::Unreachable => ', while the store did not answer',
                StoreFault::NotRead, StoreFault::NotWritten, StoreFault::NotOurs => '',
            };
            throw RemoteFailure::while(
                ($job->operation === Operation::Keep ? 'fetching ' : 'sending ').$job->path.$why,
                FailureReason::LocalFile,
            );
        }
    }

    private function do(Job $job): JobResult
    {
        return match ($job->operation) {
            Operation::List => new JobResult(0, $this->remote->list($job->path)),
            Operation::Fetch => $this->fetch($job),
            Operation::Keep => $this->keep($job),
            Operation::Hash => $this->hash($job),
            Operation::LookAgain => new JobResult(names: $this->lookAgain($job)),
            Operation::Send => $this->send($job),
            Operation::Rename => $this->rename($job),
            Operation::RenameTogether => new JobResult(names: $this->renameTogether($job)),
            Operation::Copy => $this->copy($job),
            Operation::Discard => $this->discard($job),
            Operation::MakeDirectory => $this->quiet(fn () => $this->remote->makeDirectory($job->path)),
            Operation::RemoveDirectory => $this->quiet(fn () => $this->remote->removeDirectory($job->path)),
            Operation::SetMode => new JobResult(modeRefused: ! $this->setsMode($job)),
        };
    }

    private function fetch(Job $job): JobResult
    {
        $sink = @fopen((string) $job->local, 'wb');
        if ($sink === false) {
            throw RemoteFailure::while("fetching $job->path", FailureReason::LocalFile);
        }
        try {
            $bytes = $this->remote->read($job->path, $sink, $job->size + self::MARGIN);
            if (! fflush($sink)) {
                throw RemoteFailure::while("fetching $job->path", FailureReason::LocalFile);
            }
        } finally {
            fclose($sink);
        }
        clearstatcache(true, (string) $job->local);
        if ($bytes !== $job->size || filesize((string) $job->local) !== $job->size) {
            throw self::incomplete($job, $bytes);
        }

        return new JobResult($bytes);
    }

    private function keep(Job $job): JobResult
    {
        $incoming = $this->store()->incoming();
        $most = $job->mayGrow ? 2 * $job->size + self::GROWS_BY : $job->size + self::MARGIN;
        $bytes = $this->remote->read($job->path, $incoming->sink(), $most);
        // Nothing is kept of what is not whole.
        $isWhole = $bytes === $job->size || ($job->mayGrow && $bytes > $job->size);
        $content = $isWhole ? $incoming->keep() : throw self::incomplete($job, $bytes);

        return $content->size === $bytes
            ? new JobResult($bytes, sha256: $content->sha256)
            : throw self::incomplete($job, $content->size);
    }

    private static function incomplete(Job $job, int $bytes): RemoteFailure
    {
        return RemoteFailure::while(
            "fetching $job->path",
            FailureReason::Incomplete,
            "listed with $job->size bytes, $bytes came",
        );
    }

    private function store(): ContentStore
    {
        return $this->store ?? throw new \LogicException('a job for the store, which is not there');
    }

    /** A connection that breaks is a failure and tried again; what the server has, or has not, is the answer. */
    private function hash(Job $job): JobResult
    {
        $due = $job->content;
        $computed = $due !== null && $this->remote instanceof ComputesHashes ? $this->remote->hash($job->path) : null;
        if ($computed !== null && $computed->isOf((string) $due, fn () => $this->store()->read((string) $due))) {
            return new JobResult(sha256: $due);
        }
        // One that differs is read all the same: a server may still tell the hash of what lay there before.
        $sink = tmpfile();
        if ($sink === false) {
            throw RemoteFailure::while("reading $job->path back", FailureReason::LocalFile);
        }
        try {
            $bytes = $this->remote->read($job->path, $sink, $job->size + self::MARGIN);
            $whole = $bytes === $job->size && fflush($sink) && rewind($sink);
            $hash = hash_init('sha256');
            $whole && hash_update_stream($hash, $sink);

            return new JobResult($bytes, sha256: $whole ? hash_final($hash) : null);
        } catch (RemoteFailure $failure) {
            $answered = [FailureReason::NotFound, FailureReason::Forbidden, FailureReason::Incomplete];

            return in_array($failure->reason, $answered, true) ? new JobResult : throw $failure;
        } finally {
            fclose($sink);
        }
    }

    /** @return list<string> */
    private function lookAgain(Job $job): array
    {
        return $this->remote instanceof LooksAgain
            ? $this->remote->namesOtherwise($job->path, $job->names)
            : NamesOneByOne::ask($this->remote, $job->path, $job->names);
    }

    private function send(Job $job): JobResult
    {
        $source = $this->source($job);
        try {
            $moved = $this->resumed($job, $source);
            if ($moved !== null) {
                return new JobResult($moved);
            }
            $this->remote->write($job->path, $source, $job->size);
        } finally {
            fclose($source);
        }
        $held = $job->isListedLater ? $job->size : $this->held($job->path);
        if ($held !== $job->size) {
            throw RemoteFailure::while(
                "sending $job->subject",
                FailureReason::Incomplete,
                "$job->size bytes were sent, it holds ".($held ?? 'none'),
            );
        }

        return new JobResult($job->size);
    }

    /** @return resource */
    private function source(Job $job)
    {
        $source = $job->content === null ? @fopen((string) $job->local, 'rb') : $this->store()->read($job->content);

        return $source === false
            ? throw RemoteFailure::while("sending $job->subject", FailureReason::LocalFile)
            : $source;
    }

    /** Bytes; null where there is none. */
    private function held(RemotePath $file): ?int
    {
        return $this->remote->size($file) ?? $this->remote->stat($file)?->size;
    }

    /**
     * Goes on behind what an earlier try has left there, and proves that all of it is ours.
     *
     * @param  resource  $source  stands at the beginning afterwards where that did not do
     * @return int|null bytes that were sent; null where it is to be sent from the beginning
     */
    private function resumed(Job $job, $source): ?int
    {
        if ($job->size < self::RESUMED_FROM || ! $this->remote instanceof ResumesSending) {
            return null;
        }
        $held = $this->remote->size($job->path) ?? 0;
        if ($held === 0 || $held > $job->size || fseek($source, $held) !== 0) {
            return null;
        }
        $isWhole = $held === $job->size || $this->remote->writeFrom($job->path, $source, $held, $job->size);
        $is = $isWhole ? $this->hash(Job::hash($job->path, $job->size, $job->subject, $job->content))->sha256 : null;
        rewind($source);
        $due = $job->content ?? hash_file('sha256', (string) $job->local);

        return $is !== null && $is === $due ? $job->size - $held : null;
    }

    private function rename(Job $job): JobResult
    {
        $isSet = $job->mode === null || $this->setsMode($job);
        $this->remote->rename($job->path, $job->to ?? $job->path);

        return new JobResult(modeRefused: ! $isSet);
    }

    /** @return list<string> for each name what was said against it, "" where it is given */
    private function renameTogether(Job $job): array
    {
        if ($this->remote instanceof RenamesTogether) {
            return array_map(strval(...), $this->remote->renameTogether($job->renames()));
        }
        $said = [];
        foreach ($job->renames() as [$from, $to]) {
            try {
                $this->remote->rename($from, $to);
                $said[] = '';
            } catch (RemoteFailure $failure) {
                $failure->reason->isTransient() && throw $failure;
                $said[] = $failure->serverSaid ?? $failure->getMessage();
            }
        }

        return $said;
    }

    private function copy(Job $job): JobResult
    {
        $to = $job->to ?? $job->path;
        if (! $this->isCopied($job->path, $to)) {
            return $this->send($job->asSending());
        }
        $held = $job->isListedLater ? $job->size : $this->held($to);

        return $held === $job->size ? new JobResult($job->size) : $this->send($job->asSending());
    }

    /** A server that refuses to copy takes the file all the same. */
    private function isCopied(RemotePath $from, RemotePath $to): bool
    {
        try {
            return $this->remote instanceof CopiesFiles && $this->remote->copy($from, $to);
        } catch (RemoteFailure $failure) {
            return $failure->reason->isTransient() ? throw $failure : false;
        }
    }

    /** Many servers refuse SITE CHMOD as such; what is sent is not lost for that. */
    private function setsMode(Job $job): bool
    {
        if (! $this->remote instanceof SetsModes) {
            return false;
        }
        try {
            $this->remote->setMode($job->path, (int) $job->mode);
        } catch (RemoteFailure $failure) {
            $refused = [FailureReason::Forbidden, FailureReason::NotFound, FailureReason::NotUnderstood];
            if (! in_array($failure->reason, $refused, true)) {
                throw $failure;
            }

            return false;
        }

        return true;
    }

    private function discard(Job $job): JobResult
    {
        try {
            $this->remote->remove($job->path);
        } catch (RemoteFailure $failure) {
            if ($failure->reason !== FailureReason::NotFound) {
                throw $failure;
            }
        }

        return new JobResult;
    }

    /** @param  \Closure(): void  $work */
    private function quiet(\Closure $work): JobResult
    {
        $work();

        return new JobResult;
    }
}
