<?php

declare(strict_types=1);

namespace Cellarium\Core\Hosting;

use Cellarium\Core\Path\RemotePath;

/** Jobs of a host for one run, whose login may see its paths from further down. */
final readonly class HostJobs
{
    private HostWork $work;

    /** @param  RemotePath  $root  the document root as the host sees it */
    public function __construct(public WorksOnFiles $host, private RemotePath $root)
    {
        $this->work = new HostWork($host);
    }

    /**
     * A path beside or below the document root.
     *
     * @param  RemotePath  $root  as the login sees it
     */
    public function path(RemotePath $path, RemotePath $root): RemotePath
    {
        $below = $root->parent()->toward($path);

        return $below === null ? $this->root->parent() : $this->root->parent()->join($below);
    }

    /**
     * @param  \Closure(WorksOnFiles): HostJob  $begin
     * @param  (\Closure(int, int): void)|null  $hear
     *
     * @throws ControlFailure
     */
    public function finish(string $what, \Closure $begin, ?\Closure $hear = null): HostJob
    {
        return $this->work->finish($what, $begin, $hear);
    }
}
