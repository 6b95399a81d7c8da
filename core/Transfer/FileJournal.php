<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

use Cellarium\Core\Backup\StoreFailure;
use Cellarium\Core\Backup\WholeFile;

/**
 * A journal in a directory of its own: one line a note, appended and handed to the disk at once.
 *
 * A line without its end was being written when the run was killed; what it would have noted counts as not done.
 */
final class FileJournal implements Journal
{
    /** @var array<string, array<string, true>> */
    private array $notes = [];

    /** @var resource */
    private $stream;

    /** @throws StoreFailure */
    public function __construct(private readonly string $directory)
    {
        if (! is_dir($directory) && ! @mkdir($directory, 0700, true) && ! is_dir($directory)) {
            throw StoreFailure::writing($directory);
        }
        $stream = @fopen("$directory/journal", 'c+b');
        if ($stream === false) {
            throw StoreFailure::writing("$directory/journal");
        }
        $this->stream = $stream;
        $whole = 0;
        while (($line = fgets($stream)) !== false && str_ends_with($line, "\n")) {
            [$mark, $subject] = explode(' ', rtrim($line, "\n"), 2) + [1 => ''];
            $this->notes[$mark][$subject] = true;
            $whole += strlen($line);
        }
        ftruncate($stream, $whole);
        fseek($stream, $whole);
    }

    public function note(Mark $mark, string $subject = ''): void
    {
        $line = "$mark->value $subject\n";
        if (@fwrite($this->stream, $line) !== strlen($line) || ! fflush($this->stream)) {
            throw StoreFailure::writing("$this->directory/journal");
        }
        $this->notes[$mark->value][$subject] = true;
    }

    public function noted(Mark $mark): array
    {
        return $this->notes[$mark->value] ?? [];
    }

    public function has(Mark $mark): bool
    {
        return isset($this->notes[$mark->value]);
    }

    public function keep(string $name, string $text): void
    {
        WholeFile::write("$this->directory/$name", $text);
    }

    public function kept(string $name): ?string
    {
        $text = @file_get_contents("$this->directory/$name");

        return $text === false ? null : $text;
    }
}
