<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

/**
 * References in documents of JSON: manifests of web applications (W3C Web Application Manifest) and feeds (JSON Feed
 * 1.1). Other JSON says nothing of what its texts are.
 */
final class JsonReferences
{
    private const OF_MANIFESTS = [
        'src' => ReferenceKind::Load,
        'start_url' => ReferenceKind::Link,
        'url' => ReferenceKind::Link,
    ];

    private const OF_FEEDS = [
        'home_page_url' => ReferenceKind::Link,
        'feed_url' => ReferenceKind::Link,
        'next_url' => ReferenceKind::Link,
        'url' => ReferenceKind::Link,
        'icon' => ReferenceKind::Load,
        'favicon' => ReferenceKind::Load,
        'image' => ReferenceKind::Load,
        'banner_image' => ReferenceKind::Load,
        'avatar' => ReferenceKind::Load,
    ];

    public static function ofWebManifest(Document $document, string $text): void
    {
        // A manifest of another kind may have this name too.
        if (str_contains($text, '"icons"') || str_contains($text, '"start_url"')) {
            self::scan($document, $text, 'manifest', self::OF_MANIFESTS);
        }
    }

    public static function ofFeed(Document $document, string $text): void
    {
        if (preg_match('~"version"\s*:\s*"https?:\\\\?/\\\\?/[^"]*jsonfeed~', substr($text, 0, 4096)) === 1) {
            self::scan($document, $text, 'feed', self::OF_FEEDS);
        }
    }

    /** @param  array<string, ReferenceKind>  $names */
    private static function scan(Document $document, string $text, string $what, array $names): void
    {
        if (! is_array(json_decode($text, true))) {
            return;
        }
        $found = preg_match_all(
            '~"('.implode('|', array_keys($names)).')"\s*:\s*"((?:[^"\\\\]|\\\\.)*+)"~',
            $text,
            $match,
            PREG_OFFSET_CAPTURE,
        );
        for ($at = 0; $at < $found; $at++) {
            [$raw, $offset] = $match[2][$at];
            $value = json_decode("\"$raw\"");
            $document->add(new Reference(
                $names[$match[1][$at][0]],
                "$what {$match[1][$at][0]}",
                is_string($value) ? $value : $raw,
                $offset,
                strlen($raw),
            ));
        }
    }
}
