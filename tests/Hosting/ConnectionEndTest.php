<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Connection\FtpRemoteDirectory;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Web\CurlWebClient;
use Tests\Support\HostTestCase;

/** Hosts count connections: what nobody uses any more is closed at once, not when PHP next looks for circles. */
final class ConnectionEndTest extends HostTestCase
{
    private static function descriptors(): int
    {
        return count((array) scandir('/proc/self/fd'));
    }

    public function test_a_connection_that_is_let_go_is_closed_at_once(): void
    {
        self::host();
        gc_disable();
        try {
            $before = self::descriptors();
            $remote = new FtpRemoteDirectory(self::host()->endpoint());
            $remote->list(RemotePath::root());
            self::assertGreaterThan($before, self::descriptors());
            unset($remote);
            self::assertSame($before, self::descriptors());

            $fetcher = new CurlWebClient(static fn (): string => '127.0.0.1');
            $fetcher->fetch('http://site.example:'.self::host()->webPort.'/');
            unset($fetcher);
            self::assertSame($before, self::descriptors());
        } finally {
            gc_enable();
        }
    }
}
