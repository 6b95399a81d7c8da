<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Package\Contents\SensitiveNames;
use Cellarium\Core\Package\Type\InstalledPackage;
use Cellarium\Core\Path\PathPatterns;
use Cellarium\Core\Path\RelativePath;

/**
 * The rights of a whole site against what the types of what is installed there want: writable where they say so,
 * nowhere else for everyone.
 */
final readonly class RightsCheck
{
    /** What servers start as a program of its own. */
    private const PROGRAM = '/\.(?:cgi|pl|py|sh)\z/i';

    /** @var array<string, int> mode that a path has to have at least, by path */
    private array $writable;

    /**
     * @param  list<InstalledPackage>  $installed
     * @param  Manifest|null  $deployed  what the last deployment left, paths below the document root
     */
    public function __construct(private array $installed, private ?Manifest $deployed = null)
    {
        $writable = [];
        foreach ($installed as $package) {
            foreach ($package->type->writable as $one) {
                $writable[ltrim("$package->directory/$one->path", '/')] = $one->mode;
            }
        }
        $this->writable = $writable;
    }

    /**
     * @param  Manifest  $live  paths below the document root
     * @return list<WrongRights> in the order of paths; nothing is said of what the server tells no rights of
     */
    public function of(Manifest $live): array
    {
        $wrong = [];
        foreach ($live->all() as $entry) {
            // A link has the rights of what it leads to.
            $isLooked = $entry->mode !== null && ($entry->isFile() || $entry->kind === EntryKind::Directory);
            $found = $isLooked ? $this->wrong($entry, $entry->mode) : null;
            $found === null || $wrong[] = $found;
        }

        return $wrong;
    }

    private function wrong(ManifestEntry $entry, int $mode): ?WrongRights
    {
        $path = $entry->path->toString();
        $wanted = $this->writable[$path] ?? null;

        return match (true) {
            $wanted !== null && ($mode & $wanted & 0222) !== ($wanted & 0222) => new WrongRights(
                $entry,
                RightsFault::MustBeWritable,
                $mode | $wanted,
            ),
            ($mode & 0002) !== 0 && ! $this->isForEveryone($path) => new WrongRights(
                $entry,
                RightsFault::AnyoneWrites,
                (new Rights($mode, $entry->kind))->narrowed(
                    $this->deployed?->get($path)?->mode,
                    preg_match(self::PROGRAM, $path) === 1,
                ) ?? $mode,
            ),
            $entry->isFile() && ($mode & 06000) !== 0 => new WrongRights(
                $entry,
                RightsFault::RunsAsOwner,
                $mode & ~06000,
            ),
            $entry->isFile() && ($mode & 0004) !== 0 && $this->isSecret($entry) => new WrongRights(
                $entry,
                RightsFault::AnyoneReads,
                $mode & ~0007,
            ),
            default => null,
        };
    }

    /** Whether its name says so, or a type whose own settings never leave here. */
    private function isSecret(ManifestEntry $entry): bool
    {
        foreach ($this->installed as $package) {
            $below = $package->directory === ''
                ? $entry->path
                : $entry->path->below(RelativePath::fromString($package->directory));
            if ($below !== null && (new PathPatterns($package->type->never))->match($below->toString())) {
                return true;
            }
        }

        return SensitiveNames::isOne($entry->path);
    }

    /** Whether a type wants it, or a directory above it, to be writable by everyone. */
    private function isForEveryone(string $path): bool
    {
        for ($above = $path; $above !== '.' && $above !== ''; $above = dirname($above)) {
            if ((($this->writable[$above] ?? 0) & 0002) !== 0) {
                return true;
            }
        }

        return false;
    }
}
