<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

/**
 * References in HTML, read as a browser's tokenizer does (HTML Living Standard, 13.2.5): attributes with and without
 * quotes, tags that are never closed, comments, and the text of scripts, which is none.
 *
 * What stands there for a program to fill in ("{{ url }}", "<?= $url ?>") says nothing of where it leads and is left.
 */
final class Html
{
    private const ONE = '[^\s/>=][^\s/>=]*+(?:\s*+=\s*+(?:"[^"]*+"|\'[^\']*+\'|[^\s>"\'][^\s>]*+)?+)?+';

    /** With a blank before each, which may be missing behind a quote. */
    private const ATTRIBUTES = '(?:[\s/]++(?:'.self::ONE.')?+|(?<=["\'])'.self::ONE.')*+';

    /** The last group is missing where a tag is never closed: that is none, and is read once all the same. */
    private const TOKENS = '~<!--(?:-?>|(?:[^-]++|-(?!-!?>))*+(?:--!?>)?+)'
        .'|<\?(?:php\b|=)(?:[^?]++|\?(?!>))*+(?:\?>)?+|<[!?/][^>]*+>?+'
        .'|<(script|style|textarea|title|xmp|iframe|noembed|noframes)('.self::ATTRIBUTES.')[\s/]*+>'
        .'((?:[^<]++|<(?!/\1[\s/>]))*+)'
        .'|<([a-z][^\s/>]*+)('.self::ATTRIBUTES.')[\s/]*+(>)?+~is';

    private const ATTRIBUTE = '~([^\s/>=][^\s/>=]*+)(?:\s*+=\s*+(?:"([^"]*+)"|\'([^\']*+)\'|([^\s>"\'][^\s>]*+)))?+~';

    /** Elements of drawings that show what another place holds. */
    private const DRAWN = [
        'use',
        'image',
        'feimage',
        'pattern',
        'lineargradient',
        'radialgradient',
        'mpath',
        'textpath',
    ];

    /** By attribute, for which elements. */
    private const LOADS = [
        'src' => [
            'img', 'source', 'video', 'audio', 'track', 'embed', 'iframe', 'frame', 'script', 'input', 'image',
        ],
        'lowsrc' => ['img'],
        'poster' => ['video'],
        'data' => ['object'],
        'background' => ['body', 'table', 'tr', 'td', 'th'],
        'href' => ['script', ...self::DRAWN],
        'xlink:href' => self::DRAWN,
        'manifest' => ['html'],
    ];

    private const LINKS = [
        'href' => ['a', 'area'],
        'xlink:href' => ['a'],
        'action' => ['form'],
        'formaction' => ['button', 'input'],
        'cite' => ['blockquote', 'q', 'ins', 'del'],
        'longdesc' => ['img', 'iframe'],
    ];

    private const SETS = ['srcset' => ['img', 'source'], 'imagesrcset' => ['link']];

    /** Attributes of SVG that hold a value of CSS. */
    private const STYLED = ['style', 'fill', 'stroke', 'filter', 'clip-path', 'mask', 'marker-start', 'marker-mid',
        'marker-end', 'cursor'];

    /** What an element has to hold to be of interest: a drawing has very many that hold none of it. */
    private const INTERESTING = '~[\s/"\'](?:id|name|content|src|lowsrc|poster|data|background|(?:xlink:)?href|manifest'
        .'|action|formaction|cite|longdesc|(?:image)?srcset)[\s=]|url|image|src|@|&|\\\\~i';

    /** Kinds of <link> that are fetched with the page. */
    private const FETCHED = ['stylesheet', 'icon', 'apple-touch-icon', 'apple-touch-icon-precomposed', 'mask-icon',
        'preload', 'modulepreload', 'prefetch', 'manifest', 'apple-touch-startup-image'];

    /** Of <meta>: what others show of a page. */
    private const SHOWN = [
        'og:image',
        'og:image:url',
        'og:audio',
        'og:video',
        'twitter:image',
        'msapplication-tileimage',
    ];

    /** @throws \RuntimeException when it cannot be read as a whole */
    public static function scan(string $text): Document
    {
        $document = new Document($text);
        foreach (Tokens::find(self::TOKENS, $text) as $tag) {
            if (isset($tag[1][0])) {
                self::tag($document, strtolower($tag[1][0]), (string) $tag[2][0], $tag[2][1]);
                self::text($document, strtolower($tag[1][0]), (string) $tag[2][0], (string) $tag[3][0], $tag[3][1]);
            } elseif (isset($tag[5][0], $tag[6][0]) && $tag[5][0] !== '') {
                self::tag($document, strtolower((string) $tag[4][0]), $tag[5][0], $tag[5][1]);
            }
        }

        return $document;
    }

    /**
     * What visitors read: the text between the tags, and that of titles and text areas.
     *
     * @return iterable<array{string, int}> as it is written, character references and all, with its place in bytes
     */
    public static function visible(string $text): iterable
    {
        $from = 0;
        foreach (Tokens::find(self::TOKENS, $text) as $tag) {
            [$whole, $at] = $tag[0];
            if ($at > $from) {
                yield [substr($text, $from, $at - $from), $from];
            }
            if (in_array(strtolower($tag[1][0] ?? ''), ['title', 'textarea'], true)) {
                yield [(string) $tag[3][0], $tag[3][1]];
            }
            $from = $at + strlen((string) $whole);
        }
        if ($from < strlen($text)) {
            yield [substr($text, $from), $from];
        }
    }

    /** Style sheets and modules that stand in the page itself. */
    private static function text(
        Document $document,
        string $element,
        string $attributes,
        string $text,
        int $offset,
    ): void {
        if ($element === 'style') {
            Css::scan($document, $text, $offset);
        } elseif ($element === 'script' && preg_match('~\btype\s*=\s*["\']?module\b~i', $attributes) === 1) {
            Script::scan($document, $text, $offset);
        } elseif ($element === 'script') {
            Script::beginnings($document, $text);
        } elseif ($element === 'title') {
            $document->title ??= [trim(self::decoded($text)), $offset];
        }
    }

    private static function tag(Document $document, string $element, string $written, int $offset): void
    {
        if (preg_match(self::INTERESTING, $written) !== 1) {
            return;
        }
        $attributes = [];
        foreach (Tokens::find(self::ATTRIBUTE, $written) as $one) {
            $value = match (true) {
                $one[2][0] !== null => $one[2],
                $one[3][0] !== null => $one[3],
                default => $one[4],
            };
            // Of two with one name the first counts.
            $attributes[strtolower((string) $one[1][0])] ??= [(string) $value[0], $offset + max(0, $value[1])];
        }
        foreach ($attributes as $name => [$value]) {
            if ($value !== '' && ! self::isFilledIn($value)) {
                self::attribute($document, $element, (string) $name, $attributes);
            }
        }
    }

    /** @param  array<string, array{string, int}>  $attributes */
    private static function attribute(Document $document, string $element, string $name, array $attributes): void
    {
        [$value, $at] = $attributes[$name];
        if ($name === 'id' || ($name === 'name' && in_array($element, ['a', 'map'], true))) {
            $document->ids[self::decoded($value)] = true;
        } elseif ($element === 'base' && $name === 'href') {
            $document->base ??= self::address($value);
        } elseif ($element === 'link' && $name === 'href') {
            if (preg_match('~\bcanonical\b~i', $attributes['rel'][0] ?? '') === 1) {
                $document->ownAddresses[] = self::address($value);
            }
            $document->add(self::found(self::ofLink($attributes), 'link href', $value, $at));
        } elseif ($element === 'meta' && $name === 'content') {
            self::meta($document, $attributes, $value, $at);
        } elseif (in_array($element, self::SETS[$name] ?? [], true)) {
            foreach (Srcset::candidates($value) as [$url, $place]) {
                $document->add(self::found(ReferenceKind::Load, "$element $name", $url, $at + $place));
            }
        } elseif (in_array($element, self::LOADS[$name] ?? [], true)) {
            $width = $name === 'src' && $element === 'img' ? self::width($attributes) : null;
            $document->add(self::found(ReferenceKind::Load, "$element $name", $value, $at, $width));
        } elseif (in_array($element, self::LINKS[$name] ?? [], true)) {
            if (strncasecmp($value, 'mailto:', 7) === 0) {
                $document->ownAddresses[] = self::address($value);
            }
            $document->add(self::found(ReferenceKind::Link, "$element $name", $value, $at));
        } elseif (in_array($name, self::STYLED, true)) {
            self::styles($document, $value, $at);
        }
    }

    /** Where character references stand in it, its references are told with the whole attribute. */
    private static function styles(Document $document, string $value, int $at): void
    {
        if (! str_contains($value, '&')) {
            Css::scan($document, $value, $at);

            return;
        }
        $plain = self::decoded($value);
        $within = new Document($plain);
        Css::scan($within, $plain);
        foreach ($within->references as $one) {
            $document->add(new Reference($one->kind, $one->how, $one->value, $at, strlen($value)));
        }
    }

    private static function found(
        ReferenceKind $kind,
        string $how,
        string $raw,
        int $offset,
        ?int $shownWidth = null,
    ): Reference {
        return new Reference($kind, $how, self::address($raw), $offset, strlen($raw), $shownWidth);
    }

    /** @param  array<string, array{string, int}>  $attributes */
    private static function width(array $attributes): ?int
    {
        $width = trim($attributes['width'][0] ?? '');

        return preg_match('/^[1-9]\d{0,4}(?:px)?$/D', $width) === 1 ? (int) $width : null;
    }

    /** @param  array<string, array{string, int}>  $attributes */
    private static function ofLink(array $attributes): ReferenceKind
    {
        $rel = preg_split('/\s+/', strtolower($attributes['rel'][0] ?? '')) ?: [];

        return array_intersect($rel, self::FETCHED) === [] ? ReferenceKind::Link : ReferenceKind::Load;
    }

    /** @param  array<string, array{string, int}>  $attributes */
    private static function meta(Document $document, array $attributes, string $value, int $at): void
    {
        $says = strtolower($attributes['property'][0] ?? $attributes['name'][0] ?? '');
        if (strtolower($attributes['http-equiv'][0] ?? '') === 'refresh') {
            $document->sendsOn = true;
            // "5; url=next.html" (4.2.5.3)
            if (preg_match(
                '~^[\s\d.]*[;,\s]\s*(?:url\s*=\s*)?["\']?([^"\']+)~i',
                $value,
                $match,
                PREG_OFFSET_CAPTURE,
            ) === 1) {
                $document->add(self::found(ReferenceKind::Link, 'meta refresh', $match[1][0], $at + $match[1][1]));
            }
        } elseif ($says === 'og:url') {
            $document->ownAddresses[] = self::address($value);
        } elseif (in_array($says, self::SHOWN, true)) {
            $document->add(self::found(ReferenceKind::Link, "meta $says", $value, $at));
        }
    }

    private static function isFilledIn(string $value): bool
    {
        return str_contains($value, '{{') || str_contains($value, '<?') || str_contains($value, '{%')
            || str_contains($value, '<%') || str_contains($value, '${');
    }

    private static function decoded(string $value): string
    {
        return str_contains($value, '&') ? html_entity_decode($value, ENT_QUOTES | ENT_HTML5, 'UTF-8') : $value;
    }

    /** An address as a browser reads it (URL Living Standard, 4.4): blanks at either end and line ends go. */
    private static function address(string $value): string
    {
        return str_replace(["\t", "\n", "\r"], '', trim(self::decoded($value), "\x00..\x20"));
    }
}
