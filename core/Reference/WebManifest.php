<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

/** References of a web application manifest (W3C): icons and screenshots, where it starts. */
final class WebManifest
{
    private const NAMES = [
        'src' => ReferenceKind::Load,
        'start_url' => ReferenceKind::Link,
        'url' => ReferenceKind::Link,
    ];

    public static function scan(Document $document, string $text): void
    {
        if (! is_array(json_decode($text, true))) {
            return;
        }
        $found = preg_match_all(
            '~"(src|start_url|url)"\s*:\s*"((?:[^"\\\\]|\\\\.)*+)"~',
            $text,
            $match,
            PREG_OFFSET_CAPTURE,
        );
        for ($at = 0; $at < $found; $at++) {
            [$raw, $offset] = $match[2][$at];
            $value = json_decode("\"$raw\"");
            $document->add(new Reference(
                self::NAMES[$match[1][$at][0]],
                'manifest '.$match[1][$at][0],
                is_string($value) ? $value : $raw,
                $offset,
                strlen($raw),
            ));
        }
    }
}
