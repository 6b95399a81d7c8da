<?php

declare(strict_types=1);

namespace Tests\Core\Outage;

use Cellarium\Core\Outage\OutageWatch;
use PHPUnit\Framework\TestCase;
use Tests\Support\FreePort;
use Tests\Support\Scratch;
use Tests\Support\WebServer;

/** At a web server that nobody here has written. */
final class OutageWatchTest extends TestCase
{
    use Scratch;

    public function test_it_tells_for_how_long_a_page_was_gone(): void
    {
        $scratch = $this->directory();
        mkdir("$scratch/www");
        file_put_contents("$scratch/www/index.html", 'here');
        $server = new WebServer($scratch, "$scratch/www");
        try {
            $watch = new OutageWatch("http://site.example:$server->port/index.html", '127.0.0.1', null);
            $watch->begin();
            rename("$scratch/www/index.html", "$scratch/www/gone");
            $gone = hrtime(true);
            usleep(600_000); // As long as it is gone: that is what is measured.
            rename("$scratch/www/gone", "$scratch/www/index.html");
            $seconds = (hrtime(true) - $gone) / 1e9;
            usleep(600_000);
            $outage = $watch->end();
        } finally {
            $server->stop();
        }
        self::assertNotNull($outage);
        self::assertFalse($outage->wasOut);
        self::assertFalse($outage->isOut);
        self::assertTrue($outage->isWhole);
        self::assertGreaterThanOrEqual(2, $outage->unanswered);
        self::assertSame('answered 404', $outage->words);
        // At the most: to the next question after it was back, and on a busy machine that may come late.
        self::assertGreaterThan(1000 * $seconds - 300, $outage->milliseconds);
    }

    public function test_a_site_that_never_answers_is_told_as_that(): void
    {
        $watch = new OutageWatch('http://site.example:'.FreePort::find().'/', '127.0.0.1', null);
        $watch->begin();
        $outage = $watch->end();
        self::assertTrue($outage?->wasOut);
        self::assertTrue($outage->isOut);
        self::assertStringContainsString('neither before nor after', $outage->sentence());
    }

    public function test_where_nobody_asked_nothing_is_said(): void
    {
        self::assertNull((new OutageWatch('http://site.example/', '127.0.0.1', null))->end());
    }
}
