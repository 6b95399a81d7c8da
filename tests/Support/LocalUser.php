<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Connection\TriesPaths;
use Cellarium\Core\Path\RemotePath;

/** An FTP user on directories of this machine, kept in its directory or not, as a host does it well or badly. */
final class LocalUser implements RemoteDirectory, TriesPaths
{
    private readonly LocalRemoteDirectory $inside;

    /**
     * @param  string  $home  of the account
     * @param  string  $lands  from there, "/www/site"
     * @param  string|null  $leaks  a pattern for paths that are followed out; all others are refused or lead back
     * @param  bool  $writes  whether it may change anything
     * @param  FailureReason|null  $fails  how everything fails
     * @param  string|null  $leaksFiles  a pattern for paths of files that are followed out
     */
    public function __construct(
        private readonly string $home,
        private readonly string $lands,
        private readonly ?string $leaks = null,
        private readonly bool $writes = true,
        private readonly ?FailureReason $fails = null,
        private readonly ?string $leaksFiles = null,
    ) {
        $this->inside = new LocalRemoteDirectory(rtrim($home.$lands, '/'));
    }

    public function landing(): array
    {
        return $this->fails === null
            ? $this->inside->list(RemotePath::root())
            : throw RemoteFailure::while('signing in', $this->fails, '530 No');
    }

    public function listAt(string $raw): array
    {
        if ($this->leaks !== null && preg_match($this->leaks, $raw) === 1) {
            $path = (string) realpath(
                str_starts_with($raw, '/')
                    ? $this->home.$raw
                    : "$this->home$this->lands/".strtr(rawurldecode($raw), '\\', '/'),
            );

            return (new LocalRemoteDirectory(is_dir($path) ? $path : $this->home))->list(RemotePath::root());
        }
        $there = RemotePath::tryFromString("/$raw");

        return preg_match('#\A(\.\.?/?|/)+\z#', $raw) === 1
            ? $this->landing()
            : $this->inside->list(
                $there !== null && ! is_link("$this->home$this->lands/$raw")
                    ? $there
                    : throw RemoteFailure::while("listing $raw", FailureReason::NotFound, '550 No'),
            );
    }

    public function sees(string $raw): bool
    {
        $path = str_starts_with($raw, '/')
            ? $this->home.$raw
            : "$this->home$this->lands/".strtr(rawurldecode($raw), '\\', '/');

        return $this->leaksFiles !== null && preg_match($this->leaksFiles, $raw) === 1 && is_file($path);
    }

    public function answers(): array
    {
        return ['230 Signed in', '226 Complete'];
    }

    public function list(RemotePath $directory): array
    {
        return $this->inside->list($directory);
    }

    public function stat(RemotePath $path): ?RemoteEntry
    {
        return $this->inside->stat($path);
    }

    public function read(RemotePath $file, $sink, ?int $most = null): int
    {
        return $this->inside->read($file, $sink, $most);
    }

    public function size(RemotePath $file): ?int
    {
        return $this->inside->size($file);
    }

    public function write(RemotePath $file, $source, int $size): void
    {
        $this->inside->write($this->may($file), $source, $size);
    }

    public function rename(RemotePath $from, RemotePath $to): void
    {
        $this->inside->rename($this->may($from), $to);
    }

    public function remove(RemotePath $file): void
    {
        $this->inside->remove($this->may($file));
    }

    public function makeDirectory(RemotePath $directory): void
    {
        $this->inside->makeDirectory($this->may($directory));
    }

    public function removeDirectory(RemotePath $directory): void
    {
        $this->inside->removeDirectory($this->may($directory));
    }

    private function may(RemotePath $path): RemotePath
    {
        return $this->writes
            ? $path
            : throw RemoteFailure::while("changing $path", FailureReason::NotFound, '550 This login may only read');
    }
}
