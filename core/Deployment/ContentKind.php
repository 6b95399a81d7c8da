<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Web\WebAnswer;

/**
 * The kind that an answer gives itself (RFC 9110, 8.3; RFC 6266), against the one that browsers need. Only what would
 * be seen counts: a page that is saved instead of shown, a style sheet that is left out, a picture of letters.
 */
final class ContentKind
{
    private const PAGES = ['html', 'htm', 'xhtml', 'shtml'];

    private const SCRIPTS = ['js', 'mjs'];

    private const PICTURES = ['png', 'jpg', 'jpeg', 'gif', 'webp', 'avif', 'svg', 'ico', 'bmp'];

    private const OTHER_BYTES = [
        'pdf', 'zip', 'gz', 'mp3', 'ogg', 'oga', 'wav', 'mp4', 'm4v', 'webm', 'ogv', 'mov', 'woff', 'woff2', 'ttf',
        'otf',
    ];

    /** JavaScript MIME types as browsers take them (WHATWG, MIME Sniffing, 4.6). */
    private const SCRIPT_TYPE = '~\A(?:text|application)/(?:x-)?(?:java|ecma|js|live)script(?:1\.\d)?\z~';

    /** Part of a sentence, what is wrong with it and what would mend it; null where it fits, or nothing tells. */
    public static function misfit(WebAnswer $answer, RelativePath $path): ?string
    {
        $ending = $path->extension();
        $type = strtolower(trim(explode(';', $answer->headers['content-type'] ?? '', 2)[0]));
        $isSaved = str_starts_with(strtolower($answer->headers['content-disposition'] ?? ''), 'attachment');
        if (in_array($ending, self::PAGES, true) && $isSaved) {
            return 'it is sent to be saved (Content-Disposition: attachment), so browsers do not show it';
        }
        $isStrict = strtolower($answer->headers['x-content-type-options'] ?? '') === 'nosniff';
        $isGuessed = $type === 'application/octet-stream' && ! $isStrict;
        $fits = match (true) {
            $type === '' => ! $isStrict || ! in_array($ending, [...self::PAGES, ...self::SCRIPTS, 'css'], true),
            in_array($ending, self::PAGES, true) => in_array($type, ['text/html', 'application/xhtml+xml'], true),
            $ending === 'css' => $type === 'text/css',
            in_array($ending, self::SCRIPTS, true) => preg_match(self::SCRIPT_TYPE, $type) === 1,
            in_array($ending, self::PICTURES, true) => $isGuessed || str_starts_with($type, 'image/'),
            in_array($ending, self::OTHER_BYTES, true) => ! str_starts_with($type, 'text/'),
            default => true,
        };

        $sent = $type === '' ? 'it is sent without a type that browsers may guess' : "it is sent as $type";

        return $fits ? null : "$sent, ".self::effect($ending, $type)
            ."; have the provider send .$ending files as ".self::due($ending);
    }

    private static function effect(string $ending, string $type): string
    {
        return match (true) {
            in_array($ending, self::PAGES, true) => str_starts_with($type, 'text/')
                ? 'so browsers show its source'
                : 'so browsers save it instead of showing it',
            $ending === 'css' => 'so browsers leave it out',
            in_array($ending, self::SCRIPTS, true) => 'so browsers may not run it',
            default => 'so browsers show letters',
        };
    }

    private static function due(string $ending): string
    {
        return match (true) {
            $ending === 'xhtml' => 'application/xhtml+xml',
            in_array($ending, self::PAGES, true) => 'text/html',
            $ending === 'css' => 'text/css',
            in_array($ending, self::SCRIPTS, true) => 'text/javascript',
            $ending === 'svg' => 'image/svg+xml',
            $ending === 'jpg' => 'image/jpeg',
            in_array($ending, self::PICTURES, true) => "image/$ending",
            default => 'what they are',
        };
    }
}
