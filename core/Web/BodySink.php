<?php

declare(strict_types=1);

namespace Cellarium\Core\Web;

/** An answer as it comes, bounded: of its body the hash, the length and the beginning, and what tells of caches. */
final class BodySink
{
    public readonly AnswerHeaders $headers;

    private int $bytes = 0;

    private string $head = '';

    private readonly \HashContext $hash;

    /**
     * @param  int  $keep  bytes of its beginning that are kept
     * @param  int  $most  bytes after which no more are taken
     */
    public function __construct(private readonly int $keep, public readonly int $most)
    {
        $this->hash = hash_init('sha256');
        $this->headers = new AnswerHeaders;
    }

    /** @return int the bytes taken, 0 to end it */
    public function take(string $chunk): int
    {
        hash_update($this->hash, $chunk);
        $this->bytes += strlen($chunk);
        $this->head .= substr($chunk, 0, max(0, $this->keep - strlen($this->head)));

        return $this->isOver() ? 0 : strlen($chunk);
    }

    public function isOver(): bool
    {
        return $this->bytes > $this->most;
    }

    public function bytes(): int
    {
        return $this->bytes;
    }

    public function head(): string
    {
        return $this->head;
    }

    /** Ends it: nothing may be taken any more. */
    public function sha256(): string
    {
        return hash_final($this->hash);
    }
}
