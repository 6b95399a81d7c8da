<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Connection\ConnectionPool;
use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\HostSlots;
use Cellarium\Core\Connection\LooksAgain;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Path\RemotePath;
use Tests\Support\RemoteDirectoryContract;
use Tests\Support\Scratch;
use Tests\Support\StandinHost;

/** The contract through the pool, and what the pool adds: one connection at a time where a host allows one. */
final class PooledTest extends RemoteDirectoryContract
{
    use Scratch {
        tearDown as private sweep;
    }

    private ?StandinHost $host = null;

    private function pool(float $patience = 5.0): ConnectionPool
    {
        $this->host ??= new StandinHost;

        return new ConnectionPool(new HostSlots($this->directory(), 1), patience: $patience);
    }

    protected function remote(): RemoteDirectory
    {
        $pool = $this->pool();
        exec('rm -rf '.escapeshellarg((string) $this->host?->home).'/*');
        assert($this->host !== null);

        return $pool->directory($this->host->endpoint());
    }

    protected function tearDown(): void
    {
        $this->host?->stop();
        $this->sweep();
    }

    public function test_a_host_that_is_fully_used_is_said_and_a_freed_connection_helps(): void
    {
        $pool = $this->pool(0.05);
        assert($this->host !== null);
        $first = $pool->directory($this->host->endpoint());
        $second = $pool->directory($this->host->endpoint(login: 'another'));
        self::assertNotSame($first, $second);
        $first->list(RemotePath::root());
        try {
            $second->list(RemotePath::root());
            self::fail('Two connections at once.');
        } catch (RemoteFailure $failure) {
            self::assertSame(FailureReason::TooManyConnections, $failure->reason);
        }
        $first->close();
        try {
            $second->list(RemotePath::root());
        } catch (RemoteFailure $failure) {
            self::assertSame(FailureReason::SignInRefused, $failure->reason, 'it got as far as the sign-in');
        }
        self::assertNotSame([], $first->list(RemotePath::root()), 'the refused one gave its slot back');
    }

    public function test_names_that_a_listing_leaves_out_are_found_another_way(): void
    {
        $remote = $this->remote();
        assert($remote instanceof LooksAgain && $this->host !== null);
        mkdir("{$this->host->home}/css");
        file_put_contents("{$this->host->home}/css/a.css", 'a');
        $this->host->faults(['listing_fault' => 'empty-mlsd']);
        $css = RemotePath::fromString('/css');
        self::assertSame([], $remote->list($css));
        self::assertSame(['a.css'], $remote->namesOtherwise($css, ['a.css', 'b.css']));
        self::assertSame([], $remote->namesOtherwise(RemotePath::fromString('/gone'), ['a.css']));
    }

    public function test_of_idle_connections_only_so_many_stay_open_over_all_processes(): void
    {
        $this->host ??= new StandinHost;
        $directory = $this->directory();
        $pool = static fn (): ConnectionPool => new ConnectionPool(
            new HostSlots($directory, 4),
            new HostSlots("$directory/resting", 1),
        );
        $pools = [$pool(), $pool()];
        foreach ($pools as $one) {
            $one->directory($this->host->endpoint())->list(RemotePath::root());
            $one->rest();
        }
        $free = 0;
        $held = [];
        while (($slot = (new HostSlots($directory, 4))->take($this->host->endpoint()->host, 0.0)) !== null) {
            $held[] = $slot;
            $free++;
        }
        self::assertSame(3, $free, 'the first one rests, the second is closed');
        array_map(fclose(...), $held);
        // Used again, it is none that rests.
        $pools[0]->directory($this->host->endpoint())->list(RemotePath::root());
        $pools[1]->directory($this->host->endpoint())->list(RemotePath::root());
        $pools[1]->rest();
        self::assertNull((new HostSlots("$directory/resting", 1))->take($this->host->endpoint()->host, 0.0));
    }
}
