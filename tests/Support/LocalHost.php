<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Hosting\ControlFault;
use Cellarium\Core\Hosting\HostJob;
use Cellarium\Core\Hosting\WorksOnFiles;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Path\RemotePath;
use ZipArchive;

/** A host that works on a directory of this machine at once; whatever goes wrong there goes wrong here, too. */
final class LocalHost implements WorksOnFiles
{
    /** @var array<string, HostJob> */
    private array $jobs = [];

    public function __construct(private readonly string $home, private readonly ?FaultyDirectory $faults)
    {
    }

    public function offersJobs(): bool
    {
        return $this->do(static fn (): bool => true);
    }

    public function pack(string $id, RemotePath $directory, RemotePath $archive): HostJob
    {
        throw new \LogicException('not asked for here');
    }

    public function unpack(string $id, RemotePath $archive, RemotePath $into): HostJob
    {
        return $this->begin($id, function () use ($archive, $into): array {
            $zip = new ZipArchive;

            return $zip->open($this->home.$archive) === true && $zip->extractTo($this->home.$into)
                ? ['state' => 'done']
                : ['state' => 'failed', 'message' => 'no archive'];
        });
    }

    public function move(string $id, array $moves): HostJob
    {
        return $this->begin($id, function () use ($moves): array {
            $refused = [];
            foreach ($moves as [$from, $to]) {
                $refused[] = ! file_exists($this->home.$to) && @rename($this->home.$from, $this->home.$to) ? '' : 'no';
            }

            return ['state' => 'done', 'refused' => $refused];
        });
    }

    public function job(string $id): HostJob
    {
        return $this->do(
            fn (): HostJob => $this->jobs[$id] ?? throw ControlFailure::while('a trial', ControlFault::NoSuchJob),
        );
    }

    /** @param  \Closure(): array<string, mixed>  $work */
    private function begin(string $id, \Closure $work): HostJob
    {
        return $this->do(fn (): HostJob => $this->jobs[$id] ??= HostJob::fromFields(
            new JsonFields($work() + [
                'id' => $id,
                'done' => 1,
                'total' => 1,
                'message' => null,
            ]),
        ));
    }

    /**
     * @template T
     *
     * @param  \Closure(): T  $work
     * @return T
     */
    private function do(\Closure $work): mixed
    {
        try {
            return $this->faults === null ? $work() : $this->faults->do($work);
        } catch (RemoteFailure $failure) {
            // What is tried again by itself would only take time here.
            $isLost = $failure->reason === FailureReason::Disconnected;
            throw ControlFailure::while(
                'a trial',
                $isLost ? ControlFault::Unreachable : ControlFault::Failed,
                $failure->serverSaid,
            );
        }
    }
}
