<?php

declare(strict_types=1);

namespace App\Sites;

use App\Text\Amount;
use App\Text\When;
use Carbon\CarbonInterface;

/** One thing that is proven of a site, or is not, with its age. */
final readonly class ProvenFact
{
    private function __construct(
        public string $name,
        public string $words,
        public string $tone,
        private ?CarbonInterface $at,
    ) {
    }

    public static function holds(string $name, string $words, ?CarbonInterface $at): self
    {
        return new self($name, $words, 'proven', $at);
    }

    /** It held once, and is older than promised. */
    public static function late(string $name, string $words, CarbonInterface $at): self
    {
        return new self($name, $words, 'soon', $at);
    }

    public static function fails(string $name, string $words, ?CarbonInterface $at): self
    {
        return new self($name, $words, 'now', $at);
    }

    public static function missing(string $name, string $words): self
    {
        return new self($name, $words, 'plain', null);
    }

    /** "" where it has none. */
    public function age(): string
    {
        return $this->at === null ? '' : Amount::ago($this->at);
    }

    /** To the minute, for a title. */
    public function moment(): string
    {
        return $this->at === null ? '' : When::shown($this->at, 'j M Y H:i');
    }
}
