<?php

declare(strict_types=1);

namespace Tests\Core\Package;

use Cellarium\Core\Package\RefusalReason;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\HostileArchives;
use Tests\Support\Scratch;

/**
 * Archives that mean harm are refused with a reason, or opened and do none. Each is taken in a process of its own, with
 * 256 MB of memory and ten seconds of a processor, and whatever lies around it is as it was.
 */
final class HostileArchivesTest extends TestCase
{
    use Scratch;

    private const SECONDS = 10;

    /** @return iterable<string, array{\Closure(string): string, RefusalReason|null}> */
    public static function archives(): iterable
    {
        yield from HostileArchives::all();
    }

    /** @param  \Closure(string): string  $make */
    #[DataProvider('archives')]
    public function test_it_does_no_harm(\Closure $make, ?RefusalReason $reason): void
    {
        $outer = $this->directory();
        mkdir("$outer/a/b", 0700, true);
        $file = $make("$outer/a");
        $before = self::around($outer);

        exec(sprintf(
            // What is busy beside it takes none of these seconds; one that only waits is ended, too.
            'cd %s && prlimit --cpu=%d timeout --signal=KILL %d %s -d memory_limit=256M %s %s store 2>&1',
            escapeshellarg("$outer/a/b"),
            self::SECONDS,
            self::SECONDS * 12,
            PHP_BINARY,
            escapeshellarg(dirname(__DIR__, 2).'/Support/take-archive.php'),
            escapeshellarg($file),
        ), $said, $status);

        self::assertSame(0, $status, implode("\n", $said));
        self::assertSame($reason === null ? 'taken' : $reason->value, explode(' ', $said[0])[0], implode("\n", $said));
        self::assertSame($before, self::around($outer));
        self::assertSame([], glob("$outer/a/b/store/incoming/*"), 'Something unfinished was left.');
    }

    public function test_there_are_sixty_at_least(): void
    {
        self::assertGreaterThanOrEqual(60, count(iterator_to_array(self::archives())));
    }

    public function test_every_reason_is_among_them(): void
    {
        $reasons = array_column(array_filter(array_column(iterator_to_array(self::archives()), 1)), 'value');

        self::assertSame([], array_values(array_diff(array_column(RefusalReason::cases(), 'value'), $reasons)));
    }

    /** @return array<string, string> all but the store, with their hashes */
    private static function around(string $directory): array
    {
        $found = [];
        $files = new \RecursiveIteratorIterator(
            new \RecursiveDirectoryIterator($directory, \FilesystemIterator::SKIP_DOTS),
        );
        foreach ($files as $file) {
            if (! str_starts_with($file->getPathname(), "$directory/a/b/store/")) {
                $found[$file->getPathname()] = (string) hash_file('sha256', $file->getPathname());
            }
        }
        ksort($found);

        return $found;
    }
}
