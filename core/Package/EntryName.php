<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

use Cellarium\Core\Path\PathFault;
use Cellarium\Core\Path\PathRefused;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\TemporaryName;
use Cellarium\Core\Path\WireName;

/** From the name an archive gives to a path below the directory it is unpacked in, or a refusal. */
final class EntryName
{
    /** Of a whole path; Linux takes 4,096 with what it lies in. */
    private const LONGEST_BYTES = 3000;

    private const DEEPEST = 100;

    /** @throws PackageRefused */
    public static function parse(string $archive, string $name): RelativePath
    {
        if (WireName::isHolding($name) || self::isEndless($name)) {
            throw PackageRefused::because($archive, RefusalReason::BadName, $name);
        }
        try {
            $path = RelativePath::fromString($name);
            foreach ($path->segments() as $segment) {
                if (TemporaryName::isOne($segment)) {
                    throw PackageRefused::because($archive, RefusalReason::OurName, $name);
                }
            }

            return $path;
        } catch (PathRefused $refused) {
            $leaves = $refused->fault === PathFault::Leaves || $refused->fault === PathFault::Absolute;
            throw PackageRefused::because($archive, $leaves ? RefusalReason::Leaves : RefusalReason::BadName, $name);
        }
    }

    private static function isEndless(string $name): bool
    {
        return strlen($name) > self::LONGEST_BYTES || substr_count($name, '/') > self::DEEPEST;
    }
}
