<?php

declare(strict_types=1);

namespace Tests\Core\Deployment;

use Cellarium\Core\Deployment\WhyDifferent;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Web\WebAnswer;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What keeps an address from showing what was sent is named, with what mends it. */
final class WhyDifferentTest extends TestCase
{
    private static function entry(
        string $path,
        ?int $mode,
        EntryKind $kind = EntryKind::File,
        string $text = 'new',
    ): ManifestEntry {
        return new ManifestEntry(RelativePath::fromString($path), $kind, 3, 1, $mode, hash('sha256', $text));
    }

    /** @param  array<string, string>  $headers */
    private static function answer(
        int $status,
        string $body = '',
        array $headers = [],
        ?string $location = null,
    ): WebAnswer {
        return new WebAnswer(
            'http://site.example/in/a.html',
            $status,
            hash('sha256', $body),
            strlen($body),
            $body,
            $location,
            headers: $headers,
        );
    }

    /** @return iterable<string, array{WebAnswer, list<ManifestEntry>, string|null}> what is listed, and what is said */
    public static function answers(): iterable
    {
        $there = [self::entry('in', 0755, EntryKind::Directory), self::entry('in/a.html', 0644)];
        yield 'a mode that keeps out' => [
            self::answer(403),
            [self::entry('in/a.html', 0600)],
            'its mode 0600 keeps the web server out; 0604 is the smallest that lets it read',
        ];
        yield 'a directory that keeps out' => [
            self::answer(403),
            [self::entry('in', 0750, EntryKind::Directory), self::entry('in/a.html', 0644)],
            'the directory in has mode 0750 and keeps the web server out; 0751 is the smallest that lets it in',
        ];
        yield 'refused for another reason' => [self::answer(403), $there, null];
        yield 'another root' => [
            self::answer(404),
            $there,
            'in/a.html lies on the server, so the domain shows another directory',
        ];
        yield 'other capitals' => [
            self::answer(404),
            [self::entry('in/A.html', 0644)],
            'the server has it as in/A.html, in other capitals',
        ];
        yield 'not sent' => [self::answer(404), [], 'in/a.html is not on the server'];
        yield 'a stale cache' => [
            self::answer(200, 'old', ['age' => '312']),
            $there,
            'a cache shows what was there before, fetched 312 s ago; empty it in the panel of the host, or wait '
                .'until it lets go',
        ];
        yield 'the old page, and no cache says so' => [
            self::answer(200, 'old'),
            $there,
            'it shows what was there before: a cache stands in between, or another server answers',
        ];
        yield 'an age that is none' => [
            self::answer(200, 'old', ['age' => '-1; rm']),
            $there,
            'it shows what was there before: a cache stands in between, or another server answers',
        ];
        yield 'a listing' => [
            self::answer(200, '<html><title>Index of /in</title>'),
            $there,
            'it is a listing of the directory: the web server knows no start page there',
        ];
        yield 'another site' => [
            self::answer(200, 'somebody else'),
            $there,
            'it does not show the bytes that were sent, and nothing that is there or was before has these: another '
                .'site answers, or something on the way changes pages',
        ];
        yield 'the placeholder of the host' => [
            self::answer(200, '<h1>The future home of site.example</h1>'),
            $there,
            'it is the placeholder of the host: the domain shows another directory, or nothing has been put there yet',
        ];
        yield 'a redirect' => [
            self::answer(301, location: 'https://site.example/in/a.html'),
            $there,
            'it leads on to https://site.example/in/a.html',
        ];
    }

    /** @param  list<ManifestEntry>  $listed */
    #[DataProvider('answers')]
    public function test_it_is_told_from_what_the_server_lists(
        WebAnswer $answer,
        array $listed,
        ?string $expected,
    ): void {
        $before = Manifest::fromEntries([self::entry('in/a.html', 0644, text: 'old')]);
        self::assertSame($expected, (new WhyDifferent(Manifest::fromEntries($listed), $before))->explain(
            $answer,
            self::entry('in/a.html', null),
        ));
    }
}
