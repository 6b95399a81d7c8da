<?php

declare(strict_types=1);

namespace Cellarium\Core\Reach;

use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Connection\RemoteReader;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Path\RemotePath;

/** The directories of an account as far as anybody has looked; what was not looked into is not the same as empty. */
final readonly class DirectoryTree
{
    /** @param  array<string, SeenDirectory>  $directories  by path, a directory right above what lies in it */
    private function __construct(public array $directories)
    {
    }

    /**
     * @param  int  $depth  levels below the root that are listed
     * @param  int  $most  listings made at the most
     *
     * @throws \Cellarium\Core\Connection\RemoteFailure
     */
    public static function look(RemoteReader $remote, int $depth = 4, int $most = 150): self
    {
        $found = [];
        $queue = [RemotePath::root()];
        while (($directory = array_shift($queue)) !== null) {
            $look = $directory->depth() <= $depth && $most-- > 0;
            $entries = $look ? $remote->list($directory) : [];
            $found[$directory->toString()] = $look ? SeenDirectory::holding($entries) : SeenDirectory::unseen();
            array_push($queue, ...self::below($directory, $entries));
        }

        return self::sorted($found);
    }

    /** @param  list<RemoteEntry>  $entries  what one directory holds now */
    public function with(RemotePath $directory, array $entries): self
    {
        $below = array_map(
            static fn (RemotePath $path): string => $path->toString(),
            self::below($directory, $entries),
        );
        $kept = array_filter(
            $this->directories,
            static function (string $path) use ($directory, $below): bool {
                $child = $directory->toward(RemotePath::fromString($path));

                // What is gone goes with all that lay in it.
                return $child === null || in_array($directory->child($child->segments()[0])->toString(), $below, true);
            },
            ARRAY_FILTER_USE_KEY,
        );

        return self::sorted(
            [$directory->toString() => SeenDirectory::holding($entries)]
                + $kept
                + array_fill_keys($below, SeenDirectory::unseen()),
        );
    }

    public function knows(RemotePath $directory): bool
    {
        return isset($this->directories[$directory->toString()]);
    }

    public function at(RemotePath $directory): SeenDirectory
    {
        return $this->directories[$directory->toString()] ?? SeenDirectory::unseen();
    }

    /** Whether a look has shown that it is not there; false where nobody looked. */
    public function lacks(RemotePath $directory): bool
    {
        return ! $this->knows($directory)
            && $directory->depth() > 0
            && ($this->at($directory->parent())->looked || $this->lacks($directory->parent()));
    }

    /** @return list<RemotePath> the directories right in it, as far as known */
    public function inside(RemotePath $directory): array
    {
        $inside = [];
        foreach ($this->directories as $path => $seen) {
            $place = RemotePath::fromString($path);
            if ($place->depth() === $directory->depth() + 1 && $directory->contains($place)) {
                $inside[] = $place;
            }
        }

        return $inside;
    }

    /** @return array<string, SeenDirectory> it and all that is known to lie in it, by path */
    public function within(RemotePath $directory): array
    {
        return array_filter(
            $this->directories,
            static fn (string $path): bool => $directory->contains(RemotePath::fromString($path)),
            ARRAY_FILTER_USE_KEY,
        );
    }

    /** @return list<RemotePath> upload folders, or what lies in them, where scripts were seen */
    public function scriptFolders(): array
    {
        $found = [];
        foreach ($this->directories as $path => $seen) {
            if ($seen->scripts > 0 && array_filter(explode('/', $path), NameClue::isUploadFolder(...)) !== []) {
                $found[] = RemotePath::fromString($path);
            }
        }

        return $found;
    }

    /** @return array<string, array<string, mixed>> */
    public function toArray(): array
    {
        return array_map(static fn (SeenDirectory $seen): array => $seen->toArray(), $this->directories);
    }

    /** @throws \UnexpectedValueException when it is not what toArray() gave */
    public static function fromFields(JsonFields $fields): self
    {
        $found = [];
        foreach ($fields->keys() as $path) {
            $found[$path] = SeenDirectory::fromFields($fields->fields($path));
        }

        return self::sorted($found);
    }

    /**
     * @param  list<RemoteEntry>  $entries
     * @return list<RemotePath>
     */
    private static function below(RemotePath $directory, array $entries): array
    {
        $below = [];
        foreach ($entries as $entry) {
            if ($entry->kind === EntryKind::Directory) {
                $below[] = $directory->child($entry->name);
            }
        }

        return $below;
    }

    /** @param  array<string, SeenDirectory>  $found */
    private static function sorted(array $found): self
    {
        $order = [];
        foreach (array_keys($found) as $path) {
            // By segment, so that a directory stands right above what lies in it.
            $order[$path] = strtr((string) $path, '/', "\x01");
        }
        asort($order, SORT_STRING);
        $sorted = [];
        foreach (array_keys($order) as $path) {
            $sorted[(string) $path] = $found[$path];
        }

        return new self($sorted);
    }
}
