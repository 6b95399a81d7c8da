<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

use League\Flysystem\FileAttributes;
use League\Flysystem\FilesystemException;
use League\Flysystem\FilesystemOperator;
use League\Flysystem\UnableToCopyFile;

/**
 * Sealed contents in a store that speaks S3, each an object named by its hash below two of its digits.
 *
 * S3 cannot give an object a new time without sending it again, so that a small file here stands for each that is known
 * to be there, and its time is what counts for being cleared away. One that is missing here is asked for there. Only
 * one machine clears such a store.
 */
final readonly class S3Objects implements StoredObjects
{
    /** @param  string  $directory  on a disk of this machine */
    public function __construct(private FilesystemOperator $remote, private string $directory)
    {
    }

    /** @param  int  $silentSeconds  without an answer for so long, the store is away */
    public static function connect(
        S3Settings $settings,
        string $directory,
        int $silentSeconds = S3Filesystem::SILENT_SECONDS,
    ): self {
        return new self(S3Filesystem::connect($settings, $silentSeconds), $directory);
    }

    public function incoming(): string
    {
        DiskObjects::make("$this->directory/incoming");

        return "$this->directory/incoming/".bin2hex(random_bytes(12));
    }

    public function publish(string $file, string $name): void
    {
        $source = @fopen($file, 'rb');
        $source === false && throw StoreFailure::writing($file);
        $this->alone($name, function () use ($source, $name): void {
            $this->ask("storing $name", fn () => $this->remote->writeStream(self::place($name), $source));
            $this->know($name);
        });
        is_resource($source) && fclose($source);
        @unlink($file);
    }

    public function flush(): void
    {
        // An object is kept when the store has answered.
    }

    public function has(string $name): bool
    {
        return is_file($this->known($name)) || $this->isThere(self::place($name)) || $this->isThere(self::aside($name));
    }

    public function refresh(string $name): bool
    {
        return DiskObjects::touch($this->known($name)) || $this->alone(
            $name,
            fn (): bool => ($this->isThere(self::place($name)) || $this->isBack($name)) && $this->know($name),
        );
    }

    public function open(string $name)
    {
        $failure = null;
        // It may be on its way aside, and back again in between.
        foreach ([self::place($name), self::aside($name), self::place($name)] as $place) {
            try {
                return $this->remote->readStream($place);
            } catch (FilesystemException $failure) {
                $this->isThere($place) && throw StoreFailure::unreachable("reading $name", $failure);
            }
        }

        // It was here and is lost: what this machine remembers would keep the next backup from storing it anew.
        @unlink($this->known($name));
        throw StoreFailure::missing($name);
    }

    public function isUntouched(string $name, int $before): bool
    {
        clearstatcache(true, $this->known($name));
        $time = @filemtime($this->known($name));

        // What is not known here has not been looked at here either: moveAside() notes it.
        return $time === false || $time < $before;
    }

    public function moveAside(string $name, int $before): ?int
    {
        DiskObjects::make("$this->directory/leaving");

        return $this->alone($name, function () use ($name, $before): ?int {
            // What is not known here has not been looked at here either: it is from now on.
            if (! is_file($this->known($name))) {
                $this->know($name);

                return null;
            }
            if (! DiskObjects::moveOut($this->known($name), $this->leaving($name), $before)) {
                return null;
            }

            return $this->ask("moving $name aside", function () use ($name): int {
                $size = $this->remote->fileSize(self::place($name));
                $this->relocate(self::place($name), self::aside($name));
                @unlink($this->leaving($name));

                return $size;
            });
        });
    }

    public function inAside(): iterable
    {
        $found = $this->ask('listing what lies aside', function (): array {
            $found = [];
            foreach ($this->remote->listContents('aside') as $object) {
                $name = basename($object->path());
                if ($object instanceof FileAttributes && preg_match('/\A[0-9a-f]{64}\z/', $name) === 1) {
                    isset($found[$name]) && throw self::listedTwice($name);
                    $found[$name] = new AsideContent((int) $object->fileSize(), $object->lastModified() ?? time());
                }
            }

            return $found;
        });
        ksort($found, SORT_STRING);
        foreach ($found as $name => $content) {
            yield (string) $name => $content;
        }
    }

    public function deleteAside(string $name): int
    {
        return $this->alone($name, fn (): int => ! $this->isThere(self::aside($name)) ? 0 : $this->ask(
            "deleting $name",
            function () use ($name): int {
                $size = $this->remote->fileSize(self::aside($name));
                $this->remote->delete(self::aside($name));

                return $size;
            },
        ));
    }

    public function settle(): void
    {
        foreach (glob("$this->directory/leaving/*") ?: [] as $file) {
            $name = basename($file);
            // Copied aside and not removed yet, or not even that: both copies are whole, and this one counts.
            $this->alone($name, fn () => $this->isThere(self::place($name))
                ? DiskObjects::moveBack($file, $this->known($name))
                : @unlink($file));
        }
    }

    public function sizes(string $from = ''): iterable
    {
        for ($first = hexdec(substr($from.'00', 0, 2)); $first < 256; $first++) {
            $sizes = $this->ask('listing what it holds', fn (): array => $this->below(sprintf('%02x', $first)));
            ksort($sizes, SORT_STRING);
            foreach ($sizes as $name => $size) {
                if (strcmp((string) $name, $from) >= 0) {
                    yield (string) $name => $size;
                }
            }
        }
    }

    public function mustHave(Mark $mark): void
    {
        $text = $this->ask('looking for its mark', fn (): ?string => $this->remote->fileExists(Mark::FILE)
            ? $this->remote->read(Mark::FILE)
            : null);
        try {
            $found = $text === null ? null : Mark::fromText($text);
        } catch (\UnexpectedValueException) {
            $found = null;
        }
        $found?->identity === $mark->identity || throw StoreFailure::otherStore($found !== null);
    }

    public function take(Mark $mark): void
    {
        $this->ask('leaving a mark', fn () => $this->remote->write(Mark::FILE, $mark->toText()));
    }

    public function room(): ?int
    {
        return null;
    }

    /** @return array<string, int> */
    private function below(string $first): array
    {
        $sizes = [];
        foreach ($this->remote->listContents($first) as $object) {
            $name = strtr($object->path(), ['/' => '']);
            if ($object instanceof FileAttributes && preg_match('/\A[0-9a-f]{64}\z/', $name) === 1) {
                isset($sizes[$name]) && throw self::listedTwice($name);
                $sizes[$name] = (int) $object->fileSize();
            }
        }

        return $sizes;
    }

    /** A listing that begins again has no end. */
    private static function listedTwice(string $name): StoreFailure
    {
        return StoreFailure::unreachable('listing what it holds', new \RuntimeException("it lists $name twice"));
    }

    private function isThere(string $place): bool
    {
        return $this->ask("looking for $place", fn (): bool => $this->remote->fileExists($place));
    }

    private function isBack(string $name): bool
    {
        if (! $this->isThere(self::aside($name))) {
            return false;
        }
        $this->ask("bringing $name back", fn () => $this->relocate(self::aside($name), self::place($name)));

        return true;
    }

    private function know(string $name): bool
    {
        DiskObjects::make(dirname($this->known($name)));

        return @touch($this->known($name)) ? true : throw StoreFailure::writing($this->known($name));
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
            throw StoreFailure::unreachable($doing, $failure->getPrevious() ?? $failure);
        }
    }

    /**
     * One process of this machine at a time: storing and removing the same must not overtake each other.
     *
     * @template T
     *
     * @param  \Closure(): T  $work
     * @return T
     */
    private function alone(string $name, \Closure $work): mixed
    {
        DiskObjects::make("$this->directory/locks");
        $lock = @fopen("$this->directory/locks/".substr($name, 0, 2), 'c');
        if ($lock === false || ! flock($lock, LOCK_EX)) {
            throw StoreFailure::writing("$this->directory/locks");
        }
        try {
            return $work();
        } finally {
            fclose($lock);
        }
    }

    private function known(string $name): string
    {
        return "$this->directory/known/".self::place($name);
    }

    private function leaving(string $name): string
    {
        return "$this->directory/leaving/$name";
    }

    /**
     * S3 has no renaming. The first is gone only when the second was seen to be there, whole; a store that does not
     * copy by itself gets the bytes once more.
     *
     * @throws FilesystemException
     */
    private function relocate(string $from, string $to): void
    {
        try {
            $this->remote->copy($from, $to);
        } catch (UnableToCopyFile) {
            $this->remote->writeStream($to, $this->remote->readStream($from));
        }
        if ($this->remote->fileSize($to) !== $this->remote->fileSize($from)) {
            throw UnableToCopyFile::fromLocationTo($from, $to);
        }
        $this->remote->delete($from);
    }

    private static function aside(string $name): string
    {
        return 'aside/'.str_replace('/', '', self::place($name));
    }

    private static function place(string $name): string
    {
        if (preg_match('/\A[0-9a-f]{64}\z/', $name) !== 1) {
            throw StoreFailure::missing($name);
        }

        return substr($name, 0, 2).'/'.substr($name, 2);
    }
}
