<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Package\Contents\UploadPlace;
use Cellarium\Core\Package\Finding\PackageFinding;

/**
 * Files that come by hand and were looked through by the rules of a package: a promise that only of() makes, and that
 * everything demands that sends such files.
 */
final readonly class InspectedFiles
{
    /** Of what is written down. */
    private const FORMAT = 1;

    /**
     * @param  Manifest  $files  what goes, with the directories it lies in
     * @param  list<PackageFinding>  $leftOut  each for a file or a folder that does not go
     * @param  list<PackageFinding>  $findings  of what goes, what was overruled first
     */
    private function __construct(public Manifest $files, public array $leftOut, public array $findings)
    {
    }

    /**
     * @param  Manifest  $brought  paths from where the site begins, contents in the store
     * @param  list<string>  $overruled  paths of what goes although it would not, as a person has said with a reason
     */
    public static function inspect(
        Manifest $brought,
        UploadPlace $place,
        Inspector $inspector,
        array $overruled = [],
    ): self {
        $leftOut = $findings = [];
        foreach ($inspector->upload($brought, $place) as $finding) {
            $stops = $finding->stops() && ! in_array($finding->path, $overruled, true);
            $stops ? $leftOut[] = $finding : $findings[] = $finding;
        }
        $names = array_map(static fn (PackageFinding $one): string => (string) $one->path, $leftOut);
        $isLeft = static fn (string $path): bool => self::isWithin($path, $names);
        $files = array_values(array_filter(
            $brought->files(),
            static fn (ManifestEntry $file): bool => ! $isLeft("$file->path"),
        ));

        return new self(
            $leftOut === [] ? $brought : self::with($files),
            $leftOut,
            // What stands in a file that does not go is no matter.
            array_values(array_filter(
                $findings,
                static fn (PackageFinding $one): bool => $one->path === null || ! $isLeft($one->path),
            )),
        );
    }

    /** What was found, without the files, to be shown and told later. */
    public function toText(): string
    {
        $told = static fn (PackageFinding $one): array => $one->toArray();

        return json_encode(
            [
                'format' => self::FORMAT,
                'left_out' => array_map($told, $this->leftOut),
                'findings' => array_map($told, $this->findings),
            ],
            JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES,
        );
    }

    /**
     * @return array{list<PackageFinding>, list<PackageFinding>} what was left out, what was found in what goes
     *
     * @throws \UnexpectedValueException where it was written by a newer version
     */
    public static function told(string $text): array
    {
        $fields = JsonFields::fromJson($text);
        $fields->number('format') <= self::FORMAT || throw new \UnexpectedValueException(
            'What was found in an upload was written by a newer version of Cellarium.',
        );

        return [
            array_map(PackageFinding::fromFields(...), $fields->each('left_out')),
            array_map(PackageFinding::fromFields(...), $fields->each('findings')),
        ];
    }

    /** @param  list<string>  $names  of files and folders */
    private static function isWithin(string $path, array $names): bool
    {
        foreach ($names as $name) {
            if ($path === $name || str_starts_with($path, "$name/")) {
                return true;
            }
        }

        return false;
    }

    /** @param  list<ManifestEntry>  $files */
    private static function with(array $files): Manifest
    {
        $entries = $files;
        foreach ($files as $file) {
            foreach ($file->path->ancestors() as $above) {
                $entries[] = new ManifestEntry($above, EntryKind::Directory);
            }
        }

        return Manifest::fromEntries($entries);
    }
}
