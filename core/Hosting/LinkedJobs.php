<?php

declare(strict_types=1);

namespace Cellarium\Core\Hosting;

use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Path\RemotePath;

/** Jobs of the control protocol, version 1 (docs/control-protocol.md). */
final readonly class LinkedJobs implements DumpsDatabases, WorksOnFiles
{
    public function __construct(private ControlService $service)
    {
    }

    public function offersJobs(): bool
    {
        $what = 'asking what the host does by itself';
        $account = $this->service->ask($what, 'GET', '/v1/account');

        return $account->has('jobs') && ControlService::understood(
            $what,
            static fn (): bool => array_diff(['pack', 'unpack', 'move'], $account->texts('jobs')) === [],
        );
    }

    public function pack(string $id, RemotePath $directory, RemotePath $archive): HostJob
    {
        return $this->begin($id, "packing $directory", [
            'kind' => 'pack',
            'directory' => $directory->toString(),
            'archive' => $archive->toString(),
        ]);
    }

    public function unpack(string $id, RemotePath $archive, RemotePath $into): HostJob
    {
        return $this->begin($id, "unpacking into $into", [
            'kind' => 'unpack',
            'archive' => $archive->toString(),
            'into' => $into->toString(),
        ]);
    }

    public function move(string $id, array $moves): HostJob
    {
        return $this->begin($id, "renaming {$moves[0][0]} and what goes with it", [
            'kind' => 'move',
            'moves' => array_map(
                static fn (array $pair): array => ['from' => $pair[0]->toString(), 'to' => $pair[1]->toString()],
                $moves,
            ),
        ]);
    }

    public function databases(): array
    {
        $what = 'asking which databases there are';
        $account = $this->service->ask($what, 'GET', '/v1/account');
        $does = $account->has('jobs') ? $account->texts('jobs') : [];
        $offers = $account->has('databases') && in_array('dump', $does, true);

        return ! $offers ? [] : ControlService::understood($what, static fn (): array => array_map(
            static fn (JsonFields $one): HostDatabase => new HostDatabase($one->text('name'), $one->text('site')),
            $account->each('databases'),
        ));
    }

    public function dump(string $id, string $database, RemotePath $file): HostJob
    {
        return $this->begin($id, "writing out the database $database", [
            'kind' => 'dump',
            'database' => $database,
            'file' => $file->toString(),
        ]);
    }

    public function restoresDatabases(): bool
    {
        $account = $this->service->ask('asking what the host does with databases', 'GET', '/v1/account');

        return $account->has('jobs') && in_array('restore', $account->texts('jobs'), true);
    }

    public function restore(string $id, string $database, RemotePath $file): HostJob
    {
        return $this->begin($id, "restoring the database $database", [
            'kind' => 'restore',
            'database' => $database,
            'file' => $file->toString(),
        ]);
    }

    public function job(string $id): HostJob
    {
        $what = 'asking how far the host is';

        return self::read($what, $this->service->ask($what, 'GET', "/v1/jobs/$id"));
    }

    /** @param  array<string, mixed>  $body */
    private function begin(string $id, string $what, array $body): HostJob
    {
        return self::read($what, $this->service->ask($what, 'PUT', "/v1/jobs/$id", $body));
    }

    private static function read(string $what, JsonFields $answer): HostJob
    {
        return ControlService::understood($what, static fn (): HostJob => HostJob::fromFields($answer));
    }
}
