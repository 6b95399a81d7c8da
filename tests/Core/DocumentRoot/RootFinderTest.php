<?php

declare(strict_types=1);

namespace Tests\Core\DocumentRoot;

use Cellarium\Core\DocumentRoot\RootCandidate;
use Cellarium\Core\DocumentRoot\RootFinder;
use Cellarium\Core\Path\RemotePath;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\LocalRemoteDirectory;
use Tests\Support\Scratch;

/** Accounts as hosts lay them out, and where the site is. */
final class RootFinderTest extends TestCase
{
    use Scratch;

    private const PAGE = '<h1>Kelpie Boatyard</h1>';

    private const PLACEHOLDER = '<p>This web space has been set up by Harbourhost.</p>';

    /**
     * @return iterable<string, array{array<string, string>, list<string>, string, string}> files, habits, expected
     *     root, a reason
     */
    public static function layouts(): iterable
    {
        yield 'one usual directory' => [
            ['public_html/index.html' => self::PAGE, 'mail/x' => '', 'logs/a.log' => ''],
            [],
            '/public_html',
            'hosts often call it public_html',
        ];
        yield 'empty but usual' => [
            ['htdocs/.keep' => '', 'logs/a.log' => ''],
            [],
            '/htdocs',
            'hosts often call it htdocs',
        ];
        yield 'a directory a domain' => [
            ['www/site.example/index.html' => self::PAGE, 'www/other.example/index.html' => self::PAGE],
            [],
            '/www/site.example',
            'it is named after the domain',
        ];
        yield 'inside a directory of the domain' => [
            [
                'domains/site.example/public_html/index.html' => self::PAGE,
                'domains/other.example/public_html/index.html' => self::PAGE,
            ],
            [],
            '/domains/site.example/public_html',
            'it lies in a directory named after the domain',
        ];
        yield 'the login lands in it' => [
            ['index.html' => self::PAGE, 'css/a.css' => '', 'img/x' => ''],
            [],
            '/',
            'a start page lies in it, index.html',
        ];
        yield 'the placeholder beside an old site' => [
            ['web/index.html' => self::PLACEHOLDER, 'old/index.html' => self::PAGE],
            [],
            '/web',
            "the host's placeholder index.html lies in it",
        ];
        yield 'an unusual name the host always has' => [
            ['quay/index.html' => self::PAGE, 'spare/index.html' => self::PAGE],
            ['/quay'],
            '/quay',
            'other accounts of this host have it in the same place',
        ];
        yield 'a habit with the domain in it' => [
            ['vhosts/site.example/x.txt' => '', 'html/index.html' => self::PAGE],
            ['/vhosts/{domain}'],
            '/vhosts/site.example',
            'it is named after the domain',
        ];
        yield 'other case' => [
            ['WWWRoot/Default.HTM' => self::PAGE],
            [],
            '/WWWRoot',
            'a start page lies in it, Default.HTM',
        ];
    }

    /**
     * @param  array<string, string>  $files
     * @param  list<string>  $habits
     */
    #[DataProvider('layouts')]
    public function test_the_document_root_comes_first_with_its_reasons(
        array $files,
        array $habits,
        string $root,
        string $reason,
    ): void {
        $account = $this->directory();
        foreach ($files as $path => $text) {
            @mkdir(dirname("$account/$path"), 0777, true);
            file_put_contents("$account/$path", $text);
        }
        $found = (new RootFinder(['index.html', 'default.htm'], $habits))->find(
            new LocalRemoteDirectory($account),
            'site.example',
        );
        self::assertNotSame([], $found);
        self::assertSame(
            $root,
            $found[0]->directory->toString(),
            json_encode(
                array_map(static fn (RootCandidate $one): array => $one->toArray(), $found),
                JSON_THROW_ON_ERROR,
            ),
        );
        self::assertContains($reason, $found[0]->reasons);
        self::assertSame(
            $found,
            array_values(array_filter($found, static fn (RootCandidate $one): bool => $one->score <= $found[0]->score)),
        );
    }

    public function test_nothing_is_offered_where_nothing_speaks_for_it_and_large_accounts_end(): void
    {
        $account = $this->directory();
        mkdir("$account/mail");
        self::assertSame(
            [],
            (new RootFinder(['index.html'], []))->find(new LocalRemoteDirectory($account), 'site.example'),
        );
        for ($number = 0; $number < 200; $number++) {
            mkdir("$account/d$number/html", 0777, true);
        }
        self::assertLessThanOrEqual(
            8,
            count(
                (new RootFinder(['index.html'], [], mostListings: 10))->find(
                    new LocalRemoteDirectory($account),
                    'site.example',
                ),
            ),
        );
        self::assertSame(
            '/vhosts/{domain}/web',
            RootFinder::habit(RemotePath::fromString('/vhosts/Site.example/web'), 'site.example'),
        );
    }
}
