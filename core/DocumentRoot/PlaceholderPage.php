<?php

declare(strict_types=1);

namespace Cellarium\Core\DocumentRoot;

/** Tells a host's placeholder from a site by what such pages say. */
final readonly class PlaceholderPage
{
    public const USUAL = [
        'has been set up by',
        'has not put a site here yet',
        'default web page',
        'placeholder page',
        'domain is parked',
        'future home of',
        'space is ready for your site',
    ];

    private const MOST_BYTES = 32768;

    /** @param  list<string>  $phrases any one of them marks a placeholder */
    public function __construct(private array $phrases = self::USUAL)
    {
    }

    /** @param  int  $size bytes of the whole page; a large one is a site's own */
    public function recognises(string $html, int $size): bool
    {
        if ($size > self::MOST_BYTES) {
            return false;
        }
        $text = mb_strtolower(strip_tags($html));
        foreach ($this->phrases as $phrase) {
            if (str_contains($text, mb_strtolower($phrase))) {
                return true;
            }
        }

        return false;
    }
}
