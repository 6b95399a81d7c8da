<?php

declare(strict_types=1);

namespace Tests\Support;

/** How somebody, or some program, writes HTML. All of it is read by browsers as the same. */
enum HtmlManner
{
    case Tidy;

    /** By hand: no quotes where none are needed, nothing closed, capitals. */
    case Careless;

    /** By a program of long ago: single quotes, tags over several lines, line ends of two bytes. */
    case Old;

    public function lineEnd(): string
    {
        return $this === self::Old ? "\r\n" : "\n";
    }

    /** @param  array<string, string>  $attributes */
    public function tag(string $name, array $attributes = [], ?string $text = null): string
    {
        $closed = in_array($name, ['script', 'style', 'title', 'svg', 'iframe'], true);

        return match ($this) {
            self::Tidy => "<$name".self::quoted($attributes, '"', ' ').">$text".($text === null ? '' : "</$name>"),
            self::Careless => '<'.strtoupper($name).self::bare($attributes).">$text".($closed ? "</$name >" : ''),
            self::Old => "<$name".self::quoted($attributes, "'", "\t").' />'.$text.($closed ? "</$name>" : ''),
        };
    }

    /** @return list<string> */
    public function head(string $title): array
    {
        return match ($this) {
            self::Tidy => [
                '<!doctype html>',
                '<html lang="en">',
                "<head><meta charset=\"utf-8\"><title>$title</title>",
            ],
            self::Careless => ["<TITLE>$title</TITLE>", '<META CHARSET=utf-8>'],
            self::Old => ['<?xml version="1.0"?>', '<!DOCTYPE html PUBLIC "-//W3C//DTD XHTML 1.0 Strict//EN" "">',
                "<html><head><title>$title</title>"],
        };
    }

    /** @return list<string> what looks like references and faults and is none */
    public function noise(): array
    {
        return [
            '<!-- <img src="gone.png"> coming soon -- lorem ipsum > -->',
            '<script>document.write("<img src=\'gone.png\'><a href=gone.html>"); // lorem ipsum TODO',
            'if (1 < 2 && 3 > 2) { var a = "<!-- <script>"; }</script>',
            '<img src="{{ item.image }}" alt="a > b"><a href="{% url item %}">{{ item.title }}</a>',
            '<textarea rows=2><a href="gone.html">as text</a></textarea>',
            '<p>1 < 2, AT&T & sons, a<b and href="gone.html" in words</p>',
            '<a href="#top">up</a><a href="">here</a><a href>nowhere</a><a name=old></a><a href="#old">old</a>',
            '<a href="javascript:void(0)" data-src="/gone.png" title="src=gone.png">script</a>',
            '<img src="data:image/gif;base64,R0lGODlhAQABAAAAACw=" alt="">',
        ];
    }

    /** @param  array<string, string>  $attributes */
    private static function quoted(array $attributes, string $quote, string $before): string
    {
        $written = '';
        foreach ($attributes as $name => $value) {
            $written .= "$before$name=$quote$value$quote";
        }

        return $written;
    }

    /** @param  array<string, string>  $attributes */
    private static function bare(array $attributes): string
    {
        $written = '';
        foreach ($attributes as $name => $value) {
            $isPlain = preg_match('~^[^\s"\'=<>`]+$~D', $value) === 1;
            $written .= ' '.strtoupper($name).($isPlain ? "= $value" : " =\"$value\"");
        }

        return $written;
    }
}
