<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Type;

use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Manifest\Manifest;
use Closure;

/**
 * Packages installed on a site, found by the same rules in the listing of its server: a system is where the file lies
 * that names its version, its themes and extensions are in the directories these go into.
 */
final readonly class InstalledPackages
{
    /** Directories of one system that are looked into. */
    private const MOST_PARTS = 100;

    private const MOST_SYSTEMS = 20;

    /** @param  list<InstalledPackage>  $all  each system before what belongs to it */
    private function __construct(public array $all)
    {
    }

    /** @param  Closure(string): string  $read  the first kilobytes of a file, by its path below the document root */
    public static function find(Manifest $live, PackageTypes $types, Closure $read): self
    {
        $found = [];
        foreach ($types->all() as $type) {
            if (! self::isSystem($type, $types)) {
                continue;
            }
            foreach (self::places((string) $type->version?->file->pattern, $live) as $directory) {
                $version = self::said($type->version, $directory, $live, $read);
                // A file of that name that names no version is something else.
                if ($version !== null) {
                    $found[] = new InstalledPackage($type, $directory, null, $version);
                    array_push($found, ...self::parts($type, $directory, $live, $types, $read));
                }
            }
        }

        return new self($found);
    }

    /**
     * As they were written down; of types that are no longer known nothing is said.
     *
     * @param  list<array<string, string|null>>  $written  as InstalledPackage::toArray() gives them
     */
    public static function written(array $written, PackageTypes $types): self
    {
        $found = [];
        foreach ($written as $one) {
            $fields = new JsonFields($one);
            $type = $types->get($fields->text('type'));
            $type === null || $found[] = new InstalledPackage(
                $type,
                $fields->text('directory'),
                $fields->textOrNull('name'),
                $fields->textOrNull('version'),
            );
        }

        return new self($found);
    }

    /** @return list<InstalledPackage> where a system of this type is */
    public function systems(string $type): array
    {
        return array_values(array_filter(
            $this->all,
            static fn (InstalledPackage $one): bool => $one->type->id === $type,
        ));
    }

    /** A new installation; updates bring the same files. */
    private static function isSystem(PackageType $type, PackageTypes $types): bool
    {
        return ! $type->isUpdate
            && $type->version !== null
            && $type->place === Place::DocumentRoot
            && $type->system === null
            && $types->isOfSystem($type->id);
    }

    /** @return list<string> directories in order, "" is the top */
    private static function places(string $file, Manifest $live): array
    {
        $places = [];
        foreach ($live->files() as $entry) {
            $path = $entry->path->toString();
            if ($path === $file || str_ends_with($path, "/$file")) {
                $places[] = rtrim(substr($path, 0, -strlen($file)), '/');
            }
        }

        sort($places, SORT_STRING);

        return array_slice($places, 0, self::MOST_SYSTEMS);
    }

    /**
     * @param  Closure(string): string  $read
     * @return list<InstalledPackage>
     */
    private static function parts(
        PackageType $system,
        string $directory,
        Manifest $live,
        PackageTypes $types,
        Closure $read,
    ): array {
        $found = [];
        foreach ($types->all() as $type) {
            if ($type->system !== $system->id || $type->place !== Place::InsideSystem) {
                continue;
            }
            $into = ltrim($directory.'/'.dirname((string) $type->directory), '/');
            foreach (array_slice(self::below($into, $live), 0, self::MOST_PARTS) as $part) {
                $name = self::said($type->name, $part, $live, $read);
                if ($name !== null) {
                    $found[] = new InstalledPackage(
                        $type,
                        $part,
                        $name,
                        self::said($type->version, $part, $live, $read),
                    );
                }
            }
        }

        return $found;
    }

    /** @return list<string> the directories right below one */
    private static function below(string $directory, Manifest $live): array
    {
        $found = [];
        foreach ($live->all() as $entry) {
            if (! $entry->isFile() && (string) $entry->path->parent() === $directory) {
                $found[] = $entry->path->toString();
            }
        }

        return $found;
    }

    /** @param  Closure(string): string  $read */
    private static function said(?ReadFrom $from, string $directory, Manifest $live, Closure $read): ?string
    {
        $path = $from === null ? '' : ltrim("$directory/{$from->file->pattern}", '/');

        return $from !== null && $live->get($path)?->isFile() === true
            ? $from->read(mb_scrub($read($path)))
            : null;
    }
}
