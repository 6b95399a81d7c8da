<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Fit;

use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Reference\Document;

/** Gathers what a package says of whose it is, text by text. */
final class TraitCheck
{
    /** Titles shorter than that ("Home", "Contact us") are everybody's. */
    private const SHORTEST_TITLE = 12;

    private const MOST_TITLES = 60;

    private const MOST_HOSTS = 200;

    /** @var array<string, int> */
    private array $own = [];

    /** @var array<string, true> */
    private array $titles = [];

    public function look(ManifestEntry $entry, string $text, ?Document $document): void
    {
        foreach ($document->ownAddresses ?? [] as $address) {
            $this->note($address);
        }
        $title = $document->title[0] ?? '';
        if (mb_strlen($title) >= self::SHORTEST_TITLE && count($this->titles) < self::MOST_TITLES) {
            $this->titles[mb_strimwidth($title, 0, 200)] = true;
        }
        $name = $entry->path->toString();
        match (true) {
            preg_match('/\Asitemap[^\/]*\.xml\z/', $name) === 1 => $this->each('~<loc>\s*([^<\s]+)~', $text),
            $name === 'robots.txt' => $this->each('~^\s*Sitemap:\s*(\S+)~im', $text),
            default => null,
        };
    }

    /** @param  array<string, int>  $linked  how often it links to a host */
    public function traits(array $linked): PackageTraits
    {
        arsort($linked);
        arsort($this->own);

        return new PackageTraits(
            array_slice($this->own, 0, self::MOST_HOSTS),
            array_slice($linked, 0, self::MOST_HOSTS),
            array_map(strval(...), array_keys($this->titles)),
        );
    }

    private function each(string $pattern, string $text): void
    {
        preg_match_all($pattern, substr($text, 0, 1_000_000), $match);
        foreach ($match[1] as $address) {
            $this->note($address);
        }
    }

    private function note(string $address): void
    {
        $found = preg_match('~^(?:https?://(?:[^/@]*@)?|mailto:[^@?]+@)([a-z\d.-]{3,253})~i', $address, $match);
        if ($found === 1) {
            $host = strtolower(rtrim($match[1], '.'));
            $this->own[$host] = ($this->own[$host] ?? 0) + 1;
        }
    }
}
