<?php

declare(strict_types=1);

namespace Tests\Core\Web;

use Cellarium\Core\Web\RedirectTargets;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** A redirect of a site leads to the site and to what everybody reaches, never inside. */
final class RedirectTargetsTest extends TestCase
{
    private const NAMES = [
        'shop.example' => ['203.0.113.9'],
        'far.example' => ['93.184.215.14'],
        'inside.example' => ['10.0.0.5'],
        'both.example' => ['93.184.215.14', '127.0.0.1'],
    ];

    /** @return iterable<string, array{string, string|null}> */
    public static function targets(): iterable
    {
        yield 'the site over https' => ['https://site.example/', ''];
        yield 'with www' => ['https://www.SITE.example/a', ''];
        yield 'its own port' => ['https://site.example:8443/', ''];
        yield 'another port of it' => ['http://site.example:6379/', null];
        yield 'elsewhere, public' => ['https://far.example/', '93.184.215.14'];
        yield 'elsewhere, another port' => ['http://far.example:25/', null];
        yield 'a name that leads inside' => ['https://inside.example/', null];
        yield 'a name that leads there too' => ['https://both.example/', null];
        yield 'a name nobody has' => ['https://nowhere.example/', null];
        yield 'this machine' => ['http://127.0.0.1/internal/restart?now=1', null];
        yield 'this machine by IPv6' => ['http://[::1]/', null];
        yield 'this machine in an address of a translator' => ['http://[64:ff9b::7f00:1]/', null];
        yield 'this machine in an address of a tunnel' => ['http://[2002:7f00:1::]/', null];
        yield 'elsewhere by IPv6' => ['http://[2600::1]/', '2600::1'];
        yield 'the network it stands in' => ['http://192.168.0.1/', null];
        yield 'what clouds tell of themselves' => ['http://169.254.169.254/latest/', null];
        yield 'no web at all' => ['gopher://far.example/', null];
        yield 'a file' => ['file:///etc/passwd', null];
    }

    #[DataProvider('targets')]
    public function test_it_is_asked_where_it_may_lead(string $url, ?string $at): void
    {
        $targets = new RedirectTargets(
            'https://site.example:8443/',
            static fn (string $host): array => self::NAMES[$host] ?? [],
        );
        self::assertSame($at, $targets->at($url));
    }
}
