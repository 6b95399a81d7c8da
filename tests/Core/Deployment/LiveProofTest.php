<?php

declare(strict_types=1);

namespace Tests\Core\Deployment;

use Cellarium\Core\Deployment\LiveAddresses;
use Cellarium\Core\Deployment\LiveProof;
use Cellarium\Core\Deployment\PageProof;
use Cellarium\Core\Deployment\RunPlace;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\PublicAddress;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Planner;
use Cellarium\Core\Plan\Policy;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Web\WebAnswer;
use Cellarium\Core\Web\WebFetcher;
use PHPUnit\Framework\TestCase;
use Tests\Support\Scratch;
use Tests\Support\StoredFiles;
use Tests\Support\TestStore;

final class LiveProofTest extends TestCase
{
    use Scratch;

    /**
     * @param  array<string, string>  $served  bodies by path, what is missing answers 404
     * @param  list<string>  $also
     */
    private function proof(
        array $served,
        float $share = 1.0,
        array $also = [],
        string $documentRoot = '/www',
        ?ContentStore $store = null,
        ?int $most = null,
        ?string $hostAddress = null,
    ): LiveProof {
        $fetcher = new class($served) implements WebFetcher
        {
            /** @param  array<string, string>  $served */
            public function __construct(private array $served)
            {
            }

            public function fetch(string $url, ?string $at = null): WebAnswer
            {
                $path = (string) parse_url($url, PHP_URL_PATH);
                $body = $this->served[$at === null ? $path : "$at $path"] ?? null;

                return new WebAnswer(
                    $url,
                    $body === null ? 404 : 200,
                    hash('sha256', (string) $body),
                    strlen((string) $body),
                    (string) $body,
                );
            }
        };
        $served = RemotePath::fromString($documentRoot);

        return new LiveProof(
            $fetcher,
            new LiveAddresses(
                new PublicAddress('http://site.example', $served),
                new RunPlace(RemotePath::fromString('/www'), $served),
                ['index.php', 'index.html'],
                $also,
            ),
            $share,
            $hostAddress,
            store: $store,
            most: $most,
        );
    }

    /** @param  array<string, string>  $files */
    private static function manifest(array $files): Manifest
    {
        $entries = [];
        foreach ($files as $path => $text) {
            $entries[] = new ManifestEntry(
                RelativePath::fromString($path),
                EntryKind::File,
                strlen($text),
                1,
                null,
                hash('sha256', $text),
            );
        }

        return Manifest::fromEntries($entries);
    }

    public function test_the_start_page_comes_first_then_changed_pages_then_assets(): void
    {
        $target = self::manifest([
            'index.html' => 'i',
            'a b.html' => 'a',
            'x.css' => 'c',
            'same.html' => 's',
            '.hidden' => 'h',
        ]);
        $plan = Planner::plan($target, self::manifest(['same.html' => 's', 'index.html' => 'old']), new Policy());
        $proofs = $this->proof([
            '/' => 'i',
            '/index.html' => 'i',
            '/a%20b.html' => 'a',
            '/x.css' => 'stale',
        ])->prove($plan, $target);
        self::assertSame(
            ['/', '/index.html', '/a%20b.html', '/x.css'],
            array_map(static fn (PageProof $proof): string => (string) parse_url($proof->url, PHP_URL_PATH), $proofs),
        );
        self::assertSame(
            [true, true, true, false],
            array_map(static fn (PageProof $proof): bool => $proof->holds(), $proofs),
        );
        self::assertStringContainsString('does not show the bytes that were sent', $proofs[3]->sentence());
    }

    public function test_an_old_host_that_shows_the_same_site_proves_nothing_of_the_new_one(): void
    {
        $target = self::manifest(['index.html' => 'i', 'a.html' => 'a']);
        $plan = Planner::plan($target, Manifest::fromEntries([]), new Policy());
        $old = ['/' => 'i', '/index.html' => 'i', '/a.html' => 'a'];
        $new = '192.0.2.7';
        $holds = static fn (LiveProof $proof): array => array_map(
            static fn (PageProof $page): bool => $page->holds(),
            $proof->prove($plan, $target),
        );
        $partly = $old + ["$new /" => 'i', "$new /index.html" => 'i'];
        self::assertSame([true, true, true], $holds($this->proof($old)));
        self::assertSame([true, true, false], $holds($this->proof($partly, hostAddress: $new)));
        self::assertSame(
            [true, true, true],
            $holds($this->proof($partly + ["$new /a.html" => 'a'], hostAddress: $new)),
        );
    }

    public function test_what_the_server_runs_is_asked_for_but_not_compared(): void
    {
        $target = self::manifest(['index.php' => '<?php echo 1;', 'index.html' => 'shadowed']);
        $proofs = $this->proof(['/' => '1', '/index.php' => '1', '/index.html' => 'shadowed'])->prove(
            Planner::plan($target, Manifest::fromEntries([]), new Policy()),
            $target,
        );
        self::assertSame(
            [null, true, null],
            array_map(static fn (PageProof $proof): ?bool => $proof->matches, $proofs),
        );
        self::assertTrue($proofs[0]->holds());
    }

    public function test_an_application_is_asked_for_in_its_public_folder_only(): void
    {
        $target = self::manifest([
            'public/index.html' => 'i',
            'public/a.css' => 'c',
            'public/.htaccess' => 'h',
            'src/secret.html' => 's',
        ]);
        $plan = Planner::plan($target, Manifest::fromEntries([]), new Policy);
        $proof = $this->proof(['/' => 'i', '/index.html' => 'i', '/a.css' => 'c'], documentRoot: '/www/public');
        $proofs = $proof->prove($plan, $target);
        self::assertSame(
            ['http://site.example/', 'http://site.example/index.html', 'http://site.example/a.css'],
            array_map(static fn (PageProof $page): string => $page->url, $proofs),
        );
        self::assertSame([true, true, true], array_map(static fn (PageProof $page): bool => $page->holds(), $proofs));
        self::assertSame(
            [true, false, false],
            array_map(
                static fn (string $path): bool => $proof->isComparable(
                    $target->get($path) ?? self::fail("$path is in the target"),
                ),
                ['public/a.css', 'public/.htaccess', 'src/secret.html'],
            ),
            'what has no address is read back instead',
        );
    }

    public function test_addresses_that_are_no_files_must_answer_too(): void
    {
        $target = self::manifest(['index.html' => 'i']);
        $plan = Planner::plan($target, Manifest::fromEntries([]), new Policy);
        $proof = $this->proof(
            ['/' => 'i', '/index.html' => 'i', '/news' => 'whatever'],
            0.1,
            ['http://site.example/news', 'http://site.example/gone'],
        );
        self::assertSame(
            [
                'http://site.example/ shows what was sent',
                'http://site.example/news answers',
                'http://site.example/gone was not found: the document root may be another directory',
            ],
            array_map(static fn (PageProof $page): string => $page->sentence(), $proof->prove($plan, $target)),
        );
        self::assertSame(4, $proof->count($plan, $target));
    }

    public function test_what_does_not_answer_says_why(): void
    {
        $target = self::manifest(['index.html' => 'i']);
        $proofs = $this->proof([])->prove(Planner::plan($target, Manifest::fromEntries([]), new Policy), $target);
        self::assertFalse($proofs[0]->holds());
        self::assertStringContainsString('so the domain shows another directory', $proofs[0]->sentence());
        self::assertStringContainsString('permissions', (new PageProof('u', 403, false))->sentence());
        self::assertStringContainsString('timed out', (new PageProof('u', 0, false, 'timed out'))->sentence());
    }

    public function test_all_addresses_are_fetched_or_the_share_that_is_set(): void
    {
        $files = ['index.html' => 'i'];
        for ($number = 0; $number < 50; $number++) {
            $files["p$number.css"] = 'x';
        }
        $target = self::manifest($files);
        $plan = Planner::plan($target, Manifest::fromEntries([]), new Policy);
        self::assertCount(52, $this->proof([])->prove($plan, $target));
        self::assertCount(11, $this->proof([], 0.2)->prove($plan, $target));
        self::assertSame(52, $this->proof([], 0.2)->count($plan, $target));
        $bare = self::manifest(['readme.txt' => 'r']);
        $proofs = $this->proof([])->prove(Planner::plan($bare, Manifest::fromEntries([]), new Policy()), $bare);
        self::assertSame(
            ['http://site.example/readme.txt'],
            array_map(static fn (PageProof $proof): string => $proof->url, $proofs),
        );
    }

    public function test_what_changed_pages_load_and_offer_is_fetched_although_it_stayed(): void
    {
        $store = TestStore::in($this->directory());
        $page = '<link rel="stylesheet" href="a.css"><a href="/price.pdf">Prices</a><a href="other.html">Other</a>';
        $all = ['index.html' => $page, 'a.css' => 'c', 'price.pdf' => 'p'] + ['other.html' => 'o', 'alone.png' => 'x'];
        $after = StoredFiles::in($store, $all);
        $plan = Planner::plan($after, $after->with([
            $after->get('index.html')?->withSha256(str_repeat('0', 64)) ?? self::fail('no page'),
        ]), new Policy);
        $fetched = static fn (LiveProof $proof): array => array_map(
            static fn (PageProof $one): string => "$one->url $one->status ".var_export($one->matches, true),
            $proof->prove($plan, $after),
        );

        $served = ['/' => $page, '/index.html' => $page] + ['/a.css' => 'another', '/price.pdf' => 'p'];
        self::assertSame([
            'http://site.example/ 200 true',
            'http://site.example/index.html 200 true',
            'http://site.example/a.css 200 false',
            'http://site.example/price.pdf 200 true',
        ], $fetched($this->proof($served, store: $store)));
        self::assertCount(2, $fetched($this->proof($served, store: $store, most: 2)), 'a sample of chosen size');
        self::assertSame(4, $this->proof($served, store: $store, most: 2)->count($plan, $after));
    }

    public function test_going_back_is_proven_by_the_old_bytes_and_by_new_ones_that_are_gone(): void
    {
        $old = self::manifest(['index.html' => 'old', 'a.css' => 'old css']);
        $plan = Planner::plan(
            self::manifest([
                'index.html' => 'new',
                'a.css' => 'new css',
                'b.css' => 'b',
                'c.php' => 'c',
            ]),
            $old,
            new Policy(),
        );
        $good = $this->proof(['/' => 'old', '/index.html' => 'old', '/a.css' => 'old css'])->proveBack($plan, $old);
        self::assertSame(
            [true, true, true, true],
            array_map(static fn (PageProof $proof): bool => $proof->holds(), $good),
        );
        $bad = $this->proof([
            '/' => 'old',
            '/index.html' => 'old',
            '/a.css' => 'new css',
            '/b.css' => 'b',
        ])->proveBack($plan, $old);
        $wrong = array_filter($bad, static fn (PageProof $proof): bool => ! $proof->holds());
        self::assertSame(
            ['http://site.example/a.css', 'http://site.example/b.css'],
            array_values(array_map(static fn (PageProof $proof): string => $proof->url, $wrong)),
        );
    }

    public function test_where_there_was_nothing_the_new_start_page_must_be_gone(): void
    {
        $plan = Planner::plan(self::manifest(['index.html' => 'new']), Manifest::fromEntries([]), new Policy());
        $wrong = array_filter(
            $this->proof(['/' => 'new', '/index.html' => 'new'])->proveBack($plan, Manifest::fromEntries([])),
            static fn (PageProof $proof): bool => ! $proof->holds(),
        );
        self::assertCount(2, $wrong);
        foreach ($this->proof([])->proveBack($plan, Manifest::fromEntries([])) as $proof) {
            self::assertTrue($proof->holds());
        }
    }
}
