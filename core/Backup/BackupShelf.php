<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

use Cellarium\Core\Plan\Manifest;

/** Where manifests of backups lie; written once under a name that cannot clash, readable without any database. */
final readonly class BackupShelf
{
    public function __construct(private string $directory)
    {
    }

    /**
     * @return string the backup's name
     *
     * @throws StoreFailure
     */
    public function keep(Manifest $manifest, \DateTimeImmutable $at): string
    {
        if (! is_dir($this->directory) && ! @mkdir($this->directory, 0700, true) && ! is_dir($this->directory)) {
            throw StoreFailure::writing($this->directory);
        }
        $name = $at->setTimezone(new \DateTimeZone('UTC'))->format('Ymd-His').'-'.bin2hex(random_bytes(6));
        $data = (string) gzencode($manifest->toJson());
        $file = "$this->directory/$name.json.gz";
        if (@file_put_contents("$file.new", $data) !== strlen($data) || ! rename("$file.new", $file)) {
            throw StoreFailure::writing($file);
        }

        return $name;
    }

    /** @throws StoreFailure */
    public function manifest(string $name): Manifest
    {
        if (preg_match('/\A[0-9a-f-]+\z/', $name) !== 1) {
            throw StoreFailure::missing($name);
        }
        $json = @gzdecode((string) @file_get_contents("$this->directory/$name.json.gz"));

        return Manifest::fromJson($json === false ? throw StoreFailure::missing($name) : $json);
    }
}
