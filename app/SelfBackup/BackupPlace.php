<?php

declare(strict_types=1);

namespace App\SelfBackup;

use App\Failure\Problem;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Storage\S3Filesystem;
use Cellarium\Core\Storage\S3Settings;
use Cellarium\Core\Storage\ScratchFile;
use League\Flysystem\Filesystem;
use League\Flysystem\FilesystemException;
use League\Flysystem\FilesystemOperator;
use League\Flysystem\Local\LocalFilesystemAdapter;
use League\Flysystem\UnixVisibility\PortableVisibilityConverter;

/**
 * The place of Cellarium's own backups, as the settings say: a directory outside of that for data, or a store over S3.
 */
final readonly class BackupPlace
{
    private function __construct(public string $words, private FilesystemOperator $files)
    {
    }

    /**
     * @return self|null null where the settings name none
     *
     * @throws Problem where what they name is no place for it
     */
    public static function named(): ?self
    {
        $named = (string) config('cellarium.self_backup.to');
        if ($named === '') {
            return null;
        }
        if (preg_match('#\As3:([a-z0-9.-]{3,63})(?:/(.*))?\z#', $named, $match) === 1) {
            $s3 = (array) config('cellarium.self_backup.s3');

            return new self("the bucket $match[1]", S3Filesystem::connect(new S3Settings(
                (string) $s3['endpoint'],
                (string) $s3['region'],
                $match[1],
                (string) ($match[2] ?? ''),
                (string) $s3['key'],
                new Secret((string) $s3['secret']),
            )));
        }
        $directory = str_starts_with($named, '/') ? $named : base_path($named);
        is_dir($directory) || @mkdir($directory, 0700, true);
        $real = realpath($directory);
        $real === false && throw new Problem("$directory, where Cellarium itself is to be saved, is not there and "
            .'cannot be '
            .'made. Check CELLARIUM_SELF_BACKUP_TO, and that its disk is mounted.');
        $var = (string) realpath((string) config('cellarium.var'));
        str_starts_with("$real/", "$var/") && throw new Problem(
            "$directory lies in $var, which would be lost together with it. Name another in CELLARIUM_SELF_BACKUP_TO.",
        );

        return new self($directory, new Filesystem(new LocalFilesystemAdapter(
            $real,
            PortableVisibilityConverter::fromArray([], 'private'),
        )));
    }

    /** @throws Problem */
    public function put(string $name, string $file): void
    {
        $this->ask('saving there', function () use ($name, $file): void {
            $from = fopen($file, 'rb');
            $this->files->writeStream("$name.new", $from === false ? throw new Problem("$file cannot be "
                .'read.') : $from, [
                    'visibility' => 'private',
                ]);
            $this->files->fileSize("$name.new") === filesize($file)
                || throw new Problem("Not all of $name came to $this->words. Look whether it is full.");
            $this->files->move("$name.new", $name);
        });
    }

    /** @throws Problem */
    public function fetch(string $name): ScratchFile
    {
        return $this->ask(
            'reading there',
            fn (): ScratchFile => ScratchFile::fromStream($this->files->readStream($name)),
        );
    }

    /** @throws Problem */
    public function has(string $name): bool
    {
        return $this->ask('looking there', fn (): bool => $this->files->fileExists($name));
    }

    /** @throws Problem */
    public function delete(string $name): void
    {
        $this->ask('clearing there', fn () => $this->files->delete($name));
    }

    /**
     * @template T
     *
     * @param  \Closure(): T  $question
     * @return T
     */
    private function ask(string $doing, \Closure $question): mixed
    {
        try {
            return $question();
        } catch (FilesystemException $failure) {
            throw new Problem("$this->words: $doing failed: {$failure->getMessage()} See that it is there, has room, "
                .'and may '
                .'be written to.', 0, $failure);
        }
    }
}
