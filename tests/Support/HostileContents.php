<?php

declare(strict_types=1);

namespace Tests\Support;

/** Archives that are in order, with files in them that are made to take whoever reads them memory or time. */
final class HostileContents
{
    /** Where something grows with the square of a text, this many repetitions take longer than there is. */
    private const MANY = 250_000;

    /** @return iterable<string, array{\Closure(string): string, null}> */
    public static function all(): iterable
    {
        foreach (self::files() as $name => $files) {
            yield "contents, $name" => [HostileArchives::zip($files + ['index.html' => '<title>x</title>']), null];
        }
    }

    /** @return iterable<string, array<string, string>> */
    private static function files(): iterable
    {
        // Noise at the end keeps them from being a bomb by their ratio.
        $noise = bin2hex(random_bytes(100_000));
        yield 'signs that open and never close' => ['a.html' => str_repeat('<', 12 * self::MANY).$noise];
        yield 'tags that never close' => ['a.html' => str_repeat('<a href="x ', self::MANY).$noise];
        yield 'tags in tags' => ['a.html' => str_repeat('<a ', 50_000).'x'];
        yield 'quotes that never close' => ['a.html' => str_repeat("<a b='c d=\"e ", self::MANY).$noise];
        yield 'comments that never close' => ['a.html' => str_repeat('<!-- -', 2 * self::MANY).$noise];
        yield 'scripts that never close' => ['a.html' => str_repeat('<script></scrip', self::MANY).$noise];
        yield 'elements in elements' => ['a.html' => str_repeat('<b><i>', 125_000).$noise];
        yield 'a tag with very many attributes' => ['a.html' => '<a'.str_repeat(' a=b', 100_000).">$noise"];
        yield 'one address of many megabytes' => [
            'a.html' => '<a href="'.str_repeat('../a/', 2 * self::MANY)."\">$noise",
        ];
        yield 'a set of very many' => ['a.html' => '<img srcset="'.str_repeat('a,', self::MANY)."\">$noise"];
        yield 'text without a blank' => ['a.html' => str_repeat('lorem.ipsum', self::MANY).$noise];
        yield 'days without an end' => ['a.html' => str_repeat('register 12 March 2020 ', 75_000).$noise];
        yield 'a style sheet of brackets' => ['a.css' => str_repeat('url(', 3 * self::MANY).$noise];
        yield 'a style sheet of strings' => ['a.css' => str_repeat('@import "\\', 2 * self::MANY).$noise];
        yield 'sets in sets' => ['a.css' => str_repeat('image-set((((', 150_000).$noise];
        yield 'a script of templates' => ['a.js' => str_repeat('`${`', 2 * self::MANY).$noise];
        yield 'a script of a template in a template' => ['a.js' => str_repeat('`\\', 140_000)];
        yield 'a script of a text in a text' => ['a.js' => str_repeat('"\\', 140_000)];
        yield 'a script of imports' => ['a.js' => str_repeat('import{a as b,', 200_000).$noise];
        yield 'JSON in JSON' => [
            'feed.json' => '{"version": "https://jsonfeed.example/"'.str_repeat('[', self::MANY),
        ];
        yield 'entities in entities' => ['a.svg' => '<!DOCTYPE a [<!ENTITY b "'.str_repeat('&c;', self::MANY)
            ."\">]><svg>&b;$noise</svg>"];
        yield 'a picture larger than the world' => [
            'a.png' => "\x89PNG\r\n\x1a\n\0\0\0\rIHDR\x7f\xff\xff\xff\x7f\xff\xff\xff".random_bytes(120_000),
            'index.html' => '<title>x</title><img src=a.png width=9>',
        ];
        yield 'tokens that are none' => ['a.js' => str_repeat('secret="aaaaaaaaaaaaaaaaaaaaaaaaa', 100_000).$noise];
        yield 'names that nearly meet' => self::names();
        yield 'very many broken references' => ['a.html' => self::references(), 'b.html' => self::references()];
    }

    /** @return array<string, string> */
    private static function names(): array
    {
        $files = ['a.html' => self::references()];
        for ($number = 0; $number < 2000; $number++) {
            $files[sprintf('img/harbour-%05d-%s.jpg', $number, bin2hex(random_bytes(20)))] = 'x';
        }

        return $files;
    }

    private static function references(): string
    {
        $text = '';
        for ($number = 0; $number < 5_000; $number++) {
            $text .= sprintf("<img src=img/harbour-%05d-%s.png>\n", $number, bin2hex(random_bytes(20)));
        }

        return $text;
    }
}
