<?php

declare(strict_types=1);

namespace Tests\Core\Deployment;

use Cellarium\Core\Deployment\HeldCopy;
use Cellarium\Core\Deployment\LiveAddresses;
use Cellarium\Core\Deployment\LiveFindings;
use Cellarium\Core\Deployment\LiveProof;
use Cellarium\Core\Deployment\PageProof;
use Cellarium\Core\Deployment\RefusalProof;
use Cellarium\Core\Deployment\RunPlace;
use Cellarium\Core\Deployment\UnansweredReference;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Path\PublicAddress;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Planner;
use Cellarium\Core\Plan\Policy;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Web\FetchesPlainly;
use Cellarium\Core\Web\WebAnswer;
use Cellarium\Core\Web\WebFetcher;
use PHPUnit\Framework\TestCase;
use Tests\Support\FixedClock;
use Tests\Support\Scratch;
use Tests\Support\StoredFiles;
use Tests\Support\TestStore;

/** What visitors get decides what is proven, and what they miss is said with it. */
final class LiveFindingsTest extends TestCase
{
    use Scratch;

    private ContentStore $store;

    protected function setUp(): void
    {
        $this->store = TestStore::in($this->directory());
    }

    /**
     * @param  array<string, string|array{int, string, array<string, string>}>  $served  by path: a body, or status,
     *     body and headers; what is missing answers 404
     * @param  list<string>  $secluded
     */
    private function proof(array $served, array $secluded = []): LiveProof
    {
        $fetcher = new class($served) implements FetchesPlainly, WebFetcher
        {
            /** @param  array<string, string|array{int, string, array<string, string>}>  $served */
            public function __construct(private array $served)
            {
            }

            public function fetch(string $url, ?string $at = null): WebAnswer
            {
                $answer = $this->served[(string) parse_url($url, PHP_URL_PATH)] ?? [404, '', []];
                [$status, $body, $headers] = is_string($answer) ? [200, $answer, []] : $answer;

                return new WebAnswer($url, $status, hash('sha256', $body), strlen($body), $body, headers: $headers);
            }

            public function fetchPlainly(string $url, ?string $at = null): WebAnswer
            {
                return $this->fetch($url, $at);
            }
        };
        $root = RemotePath::fromString('/www');

        return new LiveProof(
            $fetcher,
            new LiveAddresses(
                new PublicAddress('http://site.example', $root),
                new RunPlace($root, $root),
                ['index.html', 'index.php'],
                secluded: $secluded,
            ),
            store: $this->store,
        );
    }

    /** @param  array<string, string>  $files */
    private function files(array $files): Manifest
    {
        return StoredFiles::in($this->store, $files);
    }

    /**
     * @param  array<string, string|array{int, string, array<string, string>}>  $served
     * @param  array<string, string>  $sent
     * @param  array<string, string>  $stays
     * @return array<string, string> why not, or "", by path of the address
     */
    private function proven(array $served, array $sent, array $stays = []): array
    {
        $plan = Planner::plan($this->files($sent), $this->files($stays), new Policy);
        $said = [];
        foreach ($this->proof($served)->prove($plan, $this->files($sent + $stays)) as $proof) {
            $said[(string) parse_url($proof->url, PHP_URL_PATH)] = $proof->holds() ? '' : (string) $proof->why;
            self::assertEquals(
                $proof->holds(),
                PageProof::fromFields(new JsonFields($proof->toArray()))->holds(),
                'and is read back as it was written',
            );
        }

        return $said;
    }

    public function test_a_start_page_is_proven_by_the_address_of_its_directory(): void
    {
        $sent = ['index.html' => 'top', 'news/index.html' => 'news', 'news/old.html' => 'old'];
        self::assertSame(
            array_fill_keys(['/', '/index.html', '/news/', '/news/old.html'], ''),
            $this->proven(
                ['/' => 'top', '/index.html' => 'top'] + ['/news/' => 'news', '/news/old.html' => 'old'],
                $sent,
            ),
        );
        $said = $this->proven(['/' => 'top', '/index.html' => 'top', '/news/index.html' => 'news'], $sent);
        self::assertStringContainsString('the domain shows another directory', $said['/news/']);
    }

    public function test_a_server_that_shows_another_start_page_proves_nothing(): void
    {
        $program = '<?php echo "new";';
        $rows = [
            // By the order of the site the program is shown; this server has another one.
            [['shop/index.php' => $program], ['shop/index.htm' => 'old'], '/shop/', 'old', 'it shows index.htm, which'],
            [['shop/index.php' => $program], ['shop/index.htm' => 'old'], '/shop/', 'new', ''],
            [['index.php' => $program], [], '/', $program, 'shows the text of the program instead of running it'],
            [['index.php' => $program], [], '/', 'new', ''],
            [['index.php' => 'no program in it'], [], '/', 'no program in it', ''],
        ];
        foreach ($rows as [$sent, $stays, $address, $body, $why]) {
            $own = '/'.array_key_first($sent);
            $said = $this->proven([$address => $body, $own => $body === 'old' ? 'new' : $body], $sent, $stays);
            $why === ''
                ? self::assertSame('', $said[$address])
                : self::assertStringContainsString($why, $said[$address]);
        }
    }

    public function test_a_kind_of_content_that_does_not_fit_is_no_proof(): void
    {
        $rows = [
            ['a.html', ['content-type' => 'text/html; charset=utf-8'], ''],
            ['a.html', ['content-type' => 'application/octet-stream'], 'save it instead of showing it'],
            ['a.html', ['content-type' => 'text/plain'], 'show its source'],
            ['a.html', ['content-disposition' => 'attachment; filename=a'], 'to be saved'],
            ['a.html', [], ''],
            ['a.html', ['x-content-type-options' => 'nosniff'], 'without a type'],
            ['a.css', ['content-type' => 'text/css'], ''],
            ['a.css', ['content-type' => 'text/plain'], 'leave it out'],
            ['a.js', ['content-type' => 'application/x-javascript'], ''],
            ['a.js', ['content-type' => 'text/html'], 'may not run it'],
            ['a.png', ['content-type' => 'image/png'], ''],
            ['a.avif', ['content-type' => 'application/octet-stream'], ''],
            ['a.png', ['content-type' => 'text/plain'], 'show letters'],
            ['a.pdf', ['content-type' => 'application/pdf', 'content-disposition' => 'attachment'], ''],
            ['a.pdf', ['content-type' => 'text/html'], 'show letters'],
            ['a.txt', ['content-type' => 'text/html'], ''],
        ];
        foreach ($rows as [$path, $headers, $why]) {
            $said = $this->proven(["/$path" => [200, 'bytes', $headers]], [$path => 'bytes'])["/$path"];
            $why === ''
                ? self::assertSame('', $said, $path)
                : self::assertStringContainsString($why, $said, $path);
        }
    }

    public function test_what_changed_pages_ask_for_and_visitors_do_not_get_is_named_with_page_and_line(): void
    {
        $page = "<title>x</title>\n<img src=\"assets/Nowhere.css\">\n<img src='C:\\photos\\eel.jpg'>\n"
            .'<a href="/routed/by/program">r</a><a href="other.html">o</a><a href="https://else.example/x">e</a>'
            .'<a href="#here">h</a><img src="there.png"><a href="/shut/">s</a>';
        $sent = $this->files(['index.html' => $page, 'there.png' => 'p']);
        $stays = $this->files(['other.html' => 'o']);
        $found = $this->proof([
            '/routed/by/program' => 'an answer',
            '/shut/' => [403, '', []],
            '/there.png' => 'p',
        ])->find(Planner::plan($sent, $stays, new Policy), $sent->with($stays->all()), null);
        self::assertSame(
            [
                'index.html, line 3, asks for C:\photos\eel.jpg: a file on the computer of whoever wrote it, which no '
                    .'visitor has',
                'index.html, line 2, asks for assets/Nowhere.css: it is not there (status 404)',
                'index.html, line 4, asks for other.html: it is not there (status 404)',
                'index.html, line 4, asks for /shut/: visitors are refused (status 403)',
            ],
            array_map(static fn (UnansweredReference $one): string => $one->sentence(), $found->unanswered),
        );
        self::assertSame('its pages ask for 4 files that are not there', $found->but());
        self::assertEquals($found, LiveFindings::fromFields(new JsonFields($found->toArray())));
    }

    public function test_whether_what_is_not_for_visitors_is_refused_is_asked_and_not_assumed(): void
    {
        $sent = $this->files([
            '.env' => 'secret',
            '.git/config' => 'g',
            '.htaccess' => 'h',
            '.well-known/security.txt' => 'w',
            'dump.sql' => 'd',
            'about.html' => 'a',
        ]);
        $plan = Planner::plan($sent, Manifest::fromEntries([]), new Policy);
        $proof = $this->proof([
            '/.env' => 'secret',
            '/.git/config' => 'a page for whatever is asked',
            '/.htaccess' => [403, '', []],
            '/dump.sql' => 'd',
            '/.well-known/security.txt' => 'w',
            '/about.html' => 'a',
        ], ['dump.sql']);
        $found = $proof->find($plan, $sent, []);
        self::assertSame(
            ['.env' => true, '.git/config' => false] + ['.htaccess' => false, 'dump.sql' => true],
            array_column(array_map(
                static fn (RefusalProof $one): array => [$one->path, $one->isPublic],
                $found->refusals,
            ), 1, 0),
        );
        self::assertSame('2 files are public that should not be', $found->but());
        self::assertStringContainsString('is public', $found->refusals[0]->sentence());
        self::assertStringContainsString('refused to visitors (status 403)', $found->refusals[2]->sentence());
        self::assertSame(
            ['/about.html', '/.well-known/security.txt'],
            array_map(
                static fn (PageProof $one): string => (string) parse_url($one->url, PHP_URL_PATH),
                $proof->prove($plan, $sent),
            ),
            'no address has to show them',
        );
    }

    public function test_a_host_that_falls_silent_is_not_asked_for_all_of_it(): void
    {
        $asks = '';
        $served = [];
        for ($number = 0; $number < 60; $number++) {
            $asks .= "<img src=\"$number.png\">";
            $served["/$number.png"] = [0, '', []];
        }
        $sent = $this->files(['index.html' => $asks]);
        $found = $this->proof($served)->find(Planner::plan($sent, Manifest::fromEntries([]), new Policy), $sent, null);
        self::assertSame([24, 36], [count($found->unanswered), $found->notAsked]);
    }

    public function test_a_directory_that_visitors_get_as_a_list_is_told(): void
    {
        $sent = $this->files(['img/a.png' => 'a', 'css/a.css' => 'c', 'news/index.html' => 'n']);
        $list = '<html><head><title>Index of /img</title>';
        $found = $this->proof(['/img/' => $list, '/css/' => [403, $list, []], '/news/' => $list])->find(
            Planner::plan($sent, Manifest::fromEntries([]), new Policy),
            $sent,
            null,
        );
        self::assertSame(['img'], $found->listed);
    }

    public function test_for_how_long_browsers_hold_what_is_replaced_is_computed_from_the_old_answers(): void
    {
        $now = 'Wed, 02 Dec 2026 12:00:00 GMT';
        $rows = [
            [['cache-control' => 'public, max-age=600'], 600],
            [['cache-control' => 'max-age="60", private', 'expires' => 'Thu, 03 Dec 2026 12:00:00 GMT'], 60],
            [['cache-control' => 'no-cache, max-age=600'], 0],
            [['expires' => 'Wed, 02 Dec 2026 13:00:00 GMT', 'date' => $now], 3600],
            [['expires' => 'Wed, 02 Dec 2026 13:00:00 GMT'], 3600],
            [['expires' => '0', 'date' => $now], 0],
            // A tenth of the ten days since it was changed.
            [['last-modified' => 'Sun, 22 Nov 2026 12:00:00 GMT', 'date' => $now], 86_400],
            [['cache-control' => 'max-age=99999999999'], 315_360_000],
            [[], 0],
        ];
        $before = $this->files(['index.html' => 'old', 'a.css' => 'old', 'b.css' => 'same']);
        $target = $this->files(['index.html' => 'new', 'a.css' => 'new', 'b.css' => 'same']);
        $plan = Planner::plan($target, $before, new Policy);
        foreach ($rows as [$headers, $seconds]) {
            $held = $this->proof([
                '/index.html' => [200, 'old', ['cache-control' => 'max-age=5']],
                '/a.css' => [200, 'old', $headers],
                '/b.css' => [200, 'same', ['cache-control' => 'max-age=9']],
            ])->held($plan, $before, new FixedClock($now));
            $of = array_column(array_map(static fn (HeldCopy $one): array => [$one->path, $one->seconds], $held), 1, 0);
            self::assertSame($seconds, $of['a.css'] ?? 0, (string) json_encode($headers));
            self::assertSame(5, $of['index.html']);
            self::assertArrayNotHasKey('b.css', $of, 'it is not replaced');
        }
    }
}
