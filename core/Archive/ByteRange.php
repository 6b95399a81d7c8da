<?php

declare(strict_types=1);

namespace Cellarium\Core\Archive;

/** A part of something that is sent, as it is asked for by one range of bytes (RFC 9110, 14). */
final readonly class ByteRange
{
    /**
     * @param  int  $from  the first byte, from 0
     * @param  int  $to  the last byte
     * @param  int  $length  bytes of all of it
     */
    private function __construct(public int $from, public int $to, public int $length)
    {
    }

    /**
     * @param  string  $asked  the header Range; "" where there is none
     * @param  string  $if  the header If-Range; "" where there is none
     * @param  string  $tag  the entity tag of what is sent, in its quotes
     * @return self|null null for all of it: nothing is asked for, not understood, or what was begun is another by now
     *
     * @throws \OutOfRangeException where it begins behind the end
     */
    public static function asked(string $asked, string $if, string $tag, int $length): ?self
    {
        $isOne = preg_match('/\Abytes=(\d{0,15})-(\d{0,15})\z/', trim($asked), $match) === 1;
        if (! $isOne || ($match[1] === '' && $match[2] === '') || ($if !== '' && $if !== $tag)) {
            return null;
        }
        [$from, $to] = $match[1] === ''
            ? [max(0, $length - (int) $match[2]), $length - 1]
            : [(int) $match[1], $match[2] === '' ? $length - 1 : min((int) $match[2], $length - 1)];
        $isEmpty = $from >= $length || ($match[1] === '' && (int) $match[2] === 0);
        if ($isEmpty) {
            throw new \OutOfRangeException('It ends before that.');
        }

        return $to < $from ? null : new self($from, $to, $length);
    }

    public function bytes(): int
    {
        return $this->to - $this->from + 1;
    }

    /** The header Content-Range. */
    public function header(): string
    {
        return "bytes $this->from-$this->to/$this->length";
    }

    /**
     * Takes all of it in pieces, and hands on what is of the range.
     *
     * @param  \Closure(string): void  $out
     * @return \Closure(string): void throws RangeSent once the last byte was handed on
     */
    public function through(\Closure $out): \Closure
    {
        $at = 0;

        return function (string $piece) use (&$at, $out): void {
            $begin = max(0, $this->from - $at);
            $end = min(strlen($piece), $this->to + 1 - $at);
            $at += strlen($piece);
            $begin < $end && $out(substr($piece, $begin, $end - $begin));
            if ($at > $this->to) {
                throw new RangeSent;
            }
        };
    }
}
