<?php

declare(strict_types=1);

namespace Tests\Support;

use PHPUnit\Framework\TestCase;

/** Tests against one stand-in host for the whole class. */
abstract class HostTestCase extends TestCase
{
    use Scratch;

    protected static ?StandinHost $host = null;

    protected static function host(): StandinHost
    {
        return self::$host ??= new StandinHost;
    }

    public static function tearDownAfterClass(): void
    {
        $errors = self::$host?->errors() ?? '';
        self::$host?->stop();
        self::$host = null;
        self::assertSame('', $errors);
    }
}
