<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Storage\WholeFile;

/**
 * A journal in a directory of its own: one line a note, appended, and on the disk before what relies on it begins.
 *
 * A line without its end was being written when the run was killed; what it would have noted counts as not done.
 * Nothing is opened for writing and nothing made before the first note, so that looking at a run leaves it alone.
 */
final class FileJournal implements Journal
{
    /** How everything in the directory is written, notes and what is kept beside them; none said so before. */
    private const FORMAT = 1;

    /** @var array<string, array<string, true>> */
    private array $notes = [];

    /** @var resource|null */
    private $stream;

    /** @throws StoreFailure where a newer version has written it */
    public function __construct(private readonly string $directory)
    {
        $format = (int) @file_get_contents("$directory/format");
        $format <= self::FORMAT || throw StoreFailure::newer("What is kept in $directory", $format, self::FORMAT);
        $stream = @fopen("$directory/journal", 'rb');
        if ($stream !== false) {
            $this->read($stream);
            fclose($stream);
        }
    }

    public function note(JournalMark $mark, string $subject = ''): void
    {
        $line = "$mark->value $subject\n";
        $stream = $this->stream ??= $this->append();
        if (
            @fwrite($stream, $line) !== strlen($line)
            || ! fflush($stream)
            || ($mark->isPromise() && ! fsync($stream))
        ) {
            throw StoreFailure::writing("$this->directory/journal");
        }
        $this->notes[$mark->value][$subject] = true;
    }

    /**
     * @return resource standing behind the last whole line
     *
     * @throws StoreFailure
     */
    private function append()
    {
        $new = ! is_file("$this->directory/journal");
        $this->begin();
        $stream = @fopen("$this->directory/journal", 'c+b');
        if ($stream === false) {
            throw StoreFailure::writing("$this->directory/journal");
        }
        $whole = $this->read($stream);
        ftruncate($stream, $whole);
        fseek($stream, $whole);
        $new && WholeFile::syncDirectory($this->directory);

        return $stream;
    }

    /** @throws StoreFailure */
    private function begin(): void
    {
        if (! is_dir($this->directory) && ! @mkdir($this->directory, 0700, true) && ! is_dir($this->directory)) {
            throw StoreFailure::writing($this->directory);
        }
        is_file("$this->directory/format") || WholeFile::write("$this->directory/format", self::FORMAT."\n");
    }

    /**
     * @param  resource  $stream
     * @return int<0, max> where the last whole line ends
     */
    private function read($stream): int
    {
        $whole = 0;
        while (($line = fgets($stream)) !== false && str_ends_with($line, "\n")) {
            [$mark, $subject] = explode(' ', rtrim($line, "\n"), 2) + [1 => ''];
            $this->notes[$mark][$subject] = true;
            $whole += strlen($line);
        }

        return $whole;
    }

    public function noted(JournalMark $mark): array
    {
        return $this->notes[$mark->value] ?? [];
    }

    public function has(JournalMark $mark): bool
    {
        return isset($this->notes[$mark->value]);
    }

    public function keep(string $name, string|iterable $text): void
    {
        $this->begin();
        WholeFile::write("$this->directory/$name", $text);
    }

    public function kept(string $name): ?string
    {
        $text = @file_get_contents("$this->directory/$name");

        return $text === false ? null : $text;
    }

    public function open(string $name)
    {
        $stream = @fopen("$this->directory/$name", 'rb');

        return $stream === false ? null : $stream;
    }
}
