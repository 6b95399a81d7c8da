<?php

declare(strict_types=1);

namespace Cellarium\Core\Web;

/** The answer of an address. */
final readonly class WebAnswer
{
    /**
     * @param  int  $status  0 when nothing came
     * @param  string  $sha256  of the body
     * @param  string  $head  the beginning of the body, of a page 64 KiB
     * @param  string|null  $location  where a redirect leads
     * @param  string|null  $error  why nothing came
     * @param  bool  $nameUnknown  nothing came because the name leads nowhere
     * @param  array<string, string>  $headers  those that tell of caches, by their names in small letters
     * @param  int|null  $certificateEnds  Unix time; null where none was shown
     * @param  bool  $tooLong  it was broken off, since it was longer than anything that is asked for
     */
    public function __construct(
        public string $url,
        public int $status,
        public string $sha256,
        public int $bytes,
        public string $head,
        public ?string $location = null,
        public ?string $error = null,
        public bool $nameUnknown = false,
        public bool $tooLong = false,
        public array $headers = [],
        public ?int $certificateEnds = null,
    ) {
    }
}
