<?php

declare(strict_types=1);

namespace Tests\Core\Deployment;

use Cellarium\Core\Deployment\LiveLook;
use Cellarium\Core\Deployment\PageProof;
use Cellarium\Core\Web\FetchesPlainly;
use Cellarium\Core\Web\WebAnswer;
use PHPUnit\Framework\TestCase;
use Tests\Support\FixedClock;

final class LiveLookTest extends TestCase
{
    private const START = 'https://site.example/';

    /** @param  array<string, array<string, mixed>>  $answers  what differs from an empty answer of 200, by address */
    private static function web(array $answers): FetchesPlainly
    {
        return new class($answers) implements FetchesPlainly
        {
            /** @param  array<string, array<string, mixed>>  $answers */
            public function __construct(private array $answers)
            {
            }

            public function fetchPlainly(string $url, ?string $at = null): WebAnswer
            {
                return new WebAnswer(...($this->answers[$url] ?? []) + [
                    'url' => $url,
                    'status' => 200,
                    'sha256' => 'new',
                    'bytes' => 0,
                    'head' => '',
                ]);
            }
        };
    }

    /**
     * @param  array<string, array<string, mixed>>  $answers
     * @param  list<string>  $overHttp
     * @return list<string>
     */
    private static function look(array $answers, string $start = self::START, array $overHttp = []): array
    {
        $proof = new PageProof(
            "{$start}a.html",
            200,
            true,
            sha256: 'new',
        );

        return (new LiveLook(self::web($answers), new FixedClock))->look($start, [$proof], $overHttp);
    }

    private const LEADS = ['http://site.example/' => ['status' => 301, 'location' => self::START]];

    public function test_where_all_is_well_nothing_is_said(): void
    {
        self::assertSame([], self::look(self::LEADS));
        self::assertSame([], self::look([], 'http://site.example/'));
    }

    public function test_a_redirect_that_leads_inside_is_told_and_not_followed(): void
    {
        $inside = 'http://127.0.0.1/internal/restart?now=1';
        [$said] = self::look([
            'http://site.example/' => ['status' => 301, 'location' => $inside],
            $inside => ['status' => 302, 'location' => 'https://asked.example/'],
        ]);
        self::assertStringContainsString("leads to $inside, which is neither the site nor a public address", $said);
        self::assertStringNotContainsString('asked.example', $said);
    }

    public function test_a_cache_that_visitors_still_get_is_told_with_its_age(): void
    {
        $old = [self::START.'a.html' => ['sha256' => 'old', 'headers' => ['age' => '312']]];

        self::assertSame(
            ['Asked past caches it is all there; asked plainly, /a.html still comes as before, out of a cache that has '
                .'it for 312 s. Empty the cache in the panel of the host, or wait until it lets go.'],
            self::look($old + self::LEADS),
        );
    }

    public function test_the_way_from_http_is_followed(): void
    {
        self::assertStringContainsString('it shows the site unencrypted', self::look([])[0]);
        $hop = ['status' => 302, 'location' => 'http://www.site.example/'];
        $last = ['status' => 302, 'location' => self::START];
        self::assertSame(
            ['http://site.example/ leads to http://www.site.example/ leads to https://site.example/; one step would '
                .'do.'],
            self::look(['http://site.example/' => $hop, 'http://www.site.example/' => $last]),
        );
        $back = ['status' => 302, 'location' => 'http://site.example/'];
        self::assertStringContainsString(
            'in a circle',
            self::look(['http://site.example/' => $hop, 'http://www.site.example/' => $back])[0],
        );
    }

    public function test_a_certificate_that_ends_soon_is_told(): void
    {
        $now = (new FixedClock)->now()->getTimestamp();
        $ends = static fn (int $days): array => [self::START => ['certificateEnds' => $now + 86_400 * $days + 60]];

        self::assertStringContainsString(', in 7 days. Renew it', self::look($ends(7) + self::LEADS)[0]);
        self::assertSame([], self::look($ends(60) + self::LEADS));
    }

    public function test_what_browsers_block_is_told(): void
    {
        self::assertSame(
            ['a.html, b.html, c.html and 1 more load something over http, which browsers block on a page that came '
                .'over https.'],
            self::look(self::LEADS, overHttp: ['a.html', 'b.html', 'c.html', 'd.html']),
        );
    }
}
