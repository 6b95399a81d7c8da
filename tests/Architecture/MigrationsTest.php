<?php

declare(strict_types=1);

namespace Tests\Architecture;

use PHPUnit\Framework\TestCase;

/**
 * Installations have carried them out: a migration that is written down is never edited, not by hand, by a tool that
 * lays code out, or by one that gives a class another name.
 */
final class MigrationsTest extends TestCase
{
    private const ROOT = __DIR__.'/../..';

    /** In the format of sha256sum(1). */
    private const WRITTEN_DOWN = self::ROOT.'/database/migrations.sha256';

    /** `WRITE_DOCUMENTS=1 vendor/bin/phpunit tests/Architecture` adds new ones, and changes none. */
    public function test_each_is_as_it_was_written_down(): void
    {
        $written = [];
        foreach (is_file(self::WRITTEN_DOWN) ? (array) file(self::WRITTEN_DOWN, FILE_IGNORE_NEW_LINES) : [] as $line) {
            [$sha256, $name] = explode('  ', (string) $line, 2);
            $written[$name] = $sha256;
        }
        $there = [];
        foreach ((array) glob(self::ROOT.'/database/migrations/*.php') as $file) {
            $there[basename((string) $file)] = (string) hash_file('sha256', (string) $file);
        }
        if (getenv('WRITE_DOCUMENTS') === '1') {
            $written += $there;
            file_put_contents(self::WRITTEN_DOWN, implode('', array_map(
                static fn (string $name, string $sha256): string => "$sha256  $name\n",
                array_keys($written),
                $written,
            )));
        }

        self::assertSame($written, $there);
    }
}
