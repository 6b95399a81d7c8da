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

    /** @var array<string, array{\Closure(string): string, RefusalReason|null}>|null */
    private static ?array $archives = null;

    /** @var array{resource, resource, resource}|null the process, its input, what it says */
    private static ?array $taking = null;

    /** @return array<string, array{\Closure(string): string, RefusalReason|null}> */
    public static function archives(): array
    {
        return self::$archives ??= iterator_to_array(HostileArchives::all());
    }

    public static function tearDownAfterClass(): void
    {
        self::$archives = null;
        if (self::$taking !== null) {
            fclose(self::$taking[1]);
            proc_close(self::$taking[0]);
            self::$taking = null;
        }
        parent::tearDownAfterClass();
    }

    /** @param  \Closure(string): string  $make */
    #[DataProvider('archives')]
    public function test_it_does_no_harm(\Closure $make, ?RefusalReason $reason): void
    {
        $outer = $this->directory();
        mkdir("$outer/a/b", 0700, true);
        $file = $make("$outer/a");
        $before = self::around($outer);

        self::assertSame($reason === null ? 'taken' : $reason->value, self::taken("$outer/a/b", $file));
        self::assertSame($before, self::around($outer));
        self::assertSame([], glob("$outer/a/b/store/incoming/*"), 'Something unfinished was left.');
    }

    /** What became of it: the reason it was refused for, or that it was taken. */
    private static function taken(string $directory, string $file): string
    {
        self::$taking ??= self::startTaking();
        fwrite(self::$taking[1], "$directory\t$file\n");

        return rtrim((string) fgets(self::$taking[2]), "\n");
    }

    /** @return array{resource, resource, resource} */
    private static function startTaking(): array
    {
        $process = proc_open([
            'prlimit',
            '--cpu='.self::SECONDS,
            PHP_BINARY,
            '-d',
            'memory_limit=256M',
            '-d',
            'display_errors=1', // A warning is another answer.
            dirname(__DIR__, 2).'/Support/take-archives.php',
        ], [['pipe', 'r'], ['pipe', 'w']], $pipes);
        self::assertIsResource($process);

        return [$process, $pipes[0], $pipes[1]];
    }

    public function test_there_are_sixty_at_least(): void
    {
        self::assertGreaterThanOrEqual(60, count(self::archives()));
    }

    public function test_every_reason_is_among_them(): void
    {
        $reasons = array_column(array_filter(array_column(self::archives(), 1)), 'value');

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
