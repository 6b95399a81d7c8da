<?php

declare(strict_types=1);

namespace Cellarium\Core\Manifest;

use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Json\JsonLines;

/** The last look at a directory, hashes known, so that nothing is read again that is as it was. */
final readonly class EarlierLook
{
    /** How it is written; what has no number of its own is of this one too. */
    private const FORMAT = 1;

    /** How far the clock of a server may be behind ours, in seconds. */
    private const SKEW_SECONDS = 60;

    /**
     * @param  int  $seenAt  by our clock, seconds since 1970; 0 for never
     * @param  int  $trustedBefore  by the server's clock; what has an earlier time and is changed from now on gets a
     *     later one, so that the listing shows it
     */
    public function __construct(
        public Manifest $manifest,
        public int $seenAt,
        public int $trustedBefore,
    ) {
    }

    public static function never(): self
    {
        return new self(Manifest::fromEntries([]), 0, 0);
    }

    /** When nothing is known of the server's clock. */
    public static function at(int $seenAt, Manifest $manifest): self
    {
        return new self($manifest, $seenAt, $seenAt - self::SKEW_SECONDS);
    }

    /** A later look; what was sure of the server's clock stays sure. */
    public function then(int $seenAt, Manifest $manifest): self
    {
        return new self($manifest, $seenAt, max($this->trustedBefore, $seenAt - self::SKEW_SECONDS));
    }

    /**
     * Right after files were sent: their own times tell the server's clock.
     *
     * A file of the very second of the newest could be changed once more within it, and look the same.
     *
     * @param  int|null  $newest  the latest time that is listed of what was sent; null where none is
     * @param  bool  $isPast  whether that second has gone by since
     */
    public static function afterSending(int $seenAt, Manifest $manifest, ?int $newest, bool $isPast): self
    {
        return $newest === null
            ? self::at($seenAt, $manifest)
            : new self($manifest, $seenAt, $newest + ($isPast ? 1 : 0));
    }

    /** The hashes of what shows no difference since. */
    public function applied(Manifest $listed): Manifest
    {
        return $listed->withKnownHashes($this->manifest, $this->trustedBefore);
    }

    /** @return \Generator<int, string> as text */
    public function lines(): \Generator
    {
        yield JsonLines::line([
            'format' => self::FORMAT,
            'seen_at' => $this->seenAt,
            'trusted_before' => $this->trustedBefore,
        ]);
        yield from $this->manifest->lines();
    }

    public static function fromText(string $text): self
    {
        $end = (int) strpos($text, "\n");
        $fields = JsonFields::fromJson(substr($text, 0, $end));
        if ($fields->has('format') && $fields->number('format') > self::FORMAT) {
            return self::never(); // A newer version wrote it; what is not understood is read from the server again.
        }

        return new self(
            Manifest::fromText(substr($text, $end + 1)),
            $fields->number('seen_at'),
            $fields->number('trusted_before'),
        );
    }
}
