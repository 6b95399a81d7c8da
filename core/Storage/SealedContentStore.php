<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/** Contents compressed where that pays and sealed, wherever the sealed objects lie. */
final class SealedContentStore implements ContentStore
{
    /** For so long what was found again is not read once more: some contents come thousands of times in one archive. */
    private const SECONDS_KNOWN = 60;

    private const MOST_KNOWN = 1_000;

    /** @var array<string, int> until when, in nanoseconds of the system's own clock, by hash and size */
    private array $known = [];

    public function __construct(
        private readonly StoredObjects $objects,
        private readonly ContentKeys $keys,
        private readonly ?WorkInProgress $work = null,
    ) {
    }

    public function begin(): void
    {
        $this->work?->begin();
    }

    public function put(iterable $chunks): StoredContent
    {
        $incoming = $this->incoming();
        foreach ($chunks as $chunk) {
            $incoming->write($chunk);
        }

        return $incoming->keep();
    }

    public function incoming(): IncomingContent
    {
        $this->begin();

        return new IncomingContent($this->objects, $this->keys, $this->isKnown(...));
    }

    public function flush(): void
    {
        $this->objects->flush();
    }

    public function has(string $sha256): bool
    {
        return $this->objects->has($sha256);
    }

    public function refresh(string $sha256): bool
    {
        $this->begin();

        return $this->objects->refresh($sha256);
    }

    public function read(string $sha256)
    {
        $pieces = $this->pieces($sha256);
        $pieces->valid(); // What cannot be opened is told here, and not to whoever reads later.

        return ContentStream::open(function () use (&$pieces, $sha256): \Generator {
            [$first, $pieces] = [$pieces, null];

            return $first ?? $this->pieces($sha256);
        });
    }

    public function text(string $sha256, ?int $bytes = null): string
    {
        $text = '';
        foreach ($this->pieces($sha256) as $piece) {
            $text .= $piece;
            if ($bytes !== null && strlen($text) >= $bytes) {
                return substr($text, 0, $bytes);
            }
        }

        return $text;
    }

    public function isIntact(string $sha256, ?int $size = null): bool
    {
        try {
            $bytes = 0;
            foreach ($this->pieces($sha256) as $piece) {
                $bytes += strlen($piece);
            }

            return $size === null || $bytes === $size;
        } catch (StoreFailure $failure) {
            return $failure->fault->isOfOneFile() ? false : throw $failure;
        }
    }

    /**
     * The id of the key it is sealed with.
     *
     * @throws StoreFailure
     */
    public function keyOf(string $sha256): string
    {
        return SealedReader::open($this->objects->open($sha256), $sha256, $this->keys)->keyId;
    }

    /**
     * Seals it anew with the key that is in use; killed in between, it is as it was.
     *
     * @return bool false where it is sealed with that already
     *
     * @throws StoreFailure
     */
    public function seal(string $sha256): bool
    {
        if ($this->keyOf($sha256) === $this->keys->current) {
            return false;
        }
        $this->begin();
        $anew = new IncomingContent($this->objects, $this->keys, static fn (): bool => false);
        foreach ($this->pieces($sha256) as $piece) {
            $anew->write($piece);
        }

        return $anew->keep()->sha256 === $sha256;
    }

    /** Found again: it counts as new before it is read, so that nothing takes it away in between. */
    private function isKnown(string $sha256, int $size): bool
    {
        $key = "$sha256 $size";
        if (($this->known[$key] ?? 0) > hrtime(true)) {
            return $this->objects->has($sha256);
        }
        $isKnown = $this->objects->refresh($sha256) && $this->isIntact($sha256, $size);
        if ($isKnown) {
            $this->known = count($this->known) < self::MOST_KNOWN ? $this->known : [];
            $this->known[$key] = (int) hrtime(true) + self::SECONDS_KNOWN * 1_000_000_000;
        }

        return $isKnown;
    }

    /** @return \Generator<string> */
    private function pieces(string $sha256): \Generator
    {
        $file = $this->objects->open($sha256);
        $hash = hash_init('sha256');
        foreach (SealedReader::open($file, $sha256, $this->keys)->pieces() as $piece) {
            hash_update($hash, $piece);
            yield $piece;
        }
        fclose($file);
        hash_equals($sha256, hash_final($hash)) || throw StoreFailure::damaged($sha256);
    }
}
