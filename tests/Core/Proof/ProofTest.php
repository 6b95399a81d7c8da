<?php

declare(strict_types=1);

namespace Tests\Core\Proof;

use Cellarium\Core\DocumentRoot\DocumentRootProof;
use Cellarium\Core\DocumentRoot\PlaceholderPage;
use Cellarium\Core\DocumentRoot\ServedSite;
use Cellarium\Core\Path\PublicAddress;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Web\WebAnswer;
use Cellarium\Core\Web\WebFetcher;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\LocalRemoteDirectory;
use Tests\Support\Scratch;

final class ProofTest extends TestCase
{
    use Scratch;

    /** @return iterable<string, array{int, string, string|null, bool, string}> */
    public static function answers(): iterable
    {
        yield 'served' => [200, 'TOKEN', null, true, 'answered at http://site.example/cellarium-'];
        yield 'another site' => [200, 'welcome', null, false, 'Another site answered'];
        yield 'wrong root' => [404, '', null, false, 'was not found'];
        yield 'permissions' => [403, '', null, false, 'is forbidden'];
        yield 'redirect' => [
            301,
            '',
            'https://other.example/',
            false,
            'redirects to another host: https://other.example/',
        ];
        yield 'redirect to itself' => [301, '', 'https://site.example/x', false, 'redirects to https://site.example/x'];
        yield 'nothing' => [0, '', null, false, 'did not answer'];
        yield 'fault' => [500, '', null, false, 'status 500'];
    }

    #[DataProvider('answers')]
    public function test_a_document_root_is_proven_by_its_token_which_is_removed_again(
        int $status,
        string $body,
        ?string $location,
        bool $ok,
        string $words,
    ): void {
        $root = $this->directory();
        mkdir("$root/www");
        $fetcher = new class($root, $status, $body, $location) implements WebFetcher
        {
            public function __construct(
                private string $root,
                private int $status,
                private string $body,
                private ?string $location,
            ) {
            }

            public function fetch(string $url, ?string $at = null): WebAnswer
            {
                $text = (string) file_get_contents($this->root.'/www'.parse_url($url, PHP_URL_PATH));
                $body = $this->body === 'TOKEN' ? $text : $this->body;

                return new WebAnswer($url, $this->status, hash('sha256', $body), strlen($body), $body, $this->location);
            }
        };
        $www = RemotePath::fromString('/www');
        $step = DocumentRootProof::prove(
            new ServedSite(new LocalRemoteDirectory($root), $fetcher, new PublicAddress('http://site.example', $www)),
            $www,
            'abc123',
        );
        self::assertSame($ok, $step->ok);
        self::assertStringContainsString($words, $step->sentence);
        self::assertSame($ok, $step->next === null);
        self::assertSame([], self::contents("$root/www"));
    }

    public function test_a_domain_that_leads_elsewhere_is_asked_for_at_its_host(): void
    {
        $root = $this->directory();
        $fetcher = new class($root) implements WebFetcher
        {
            public function __construct(private string $root)
            {
            }

            public function fetch(string $url, ?string $at = null): WebAnswer
            {
                $text =
                    $at === '192.0.2.7' ? (string) file_get_contents($this->root.parse_url($url, PHP_URL_PATH)) : '';

                return new WebAnswer(
                    $url,
                    $at === null ? 0 : 200,
                    hash('sha256', $text),
                    strlen($text),
                    $text,
                    error: $at === null ? 'no such name' : null,
                    nameUnknown: $at === null,
                );
            }
        };
        $prove = static fn (?string $address) => DocumentRootProof::prove(
            new ServedSite(
                new LocalRemoteDirectory($root),
                $fetcher,
                new PublicAddress('http://site.example', RemotePath::root()),
                $address,
            ),
            RemotePath::root(),
            'abc',
        );
        $proven = $prove('192.0.2.7');
        self::assertTrue($proven->ok);
        self::assertStringContainsString('the host\'s own address 192.0.2.7', $proven->sentence);
        self::assertStringContainsString('leads nowhere yet', (string) $proven->next);
        foreach ([null, '192.0.2.8'] as $address) {
            self::assertStringContainsString('does not resolve', $prove($address)->sentence);
        }
        self::assertSame([], self::contents($root));
    }

    public function test_placeholders_are_told_from_sites(): void
    {
        $page = new PlaceholderPage();
        self::assertTrue($page->recognises('<h1>x</h1><p>This web space has <b>been</b> set up by Harbourhost.</p>'));
        self::assertFalse($page->recognises('<h1>Pilgrim Stones Hostel</h1><p>Twenty-two beds.</p>'));
    }

    public function test_a_large_page_is_a_site_and_is_not_read_to_its_end_whatever_size_the_listing_has(): void
    {
        $root = $this->directory();
        file_put_contents("$root/small.html", 'This space has been set up by Harbourhost.');
        file_put_contents("$root/large.html", 'has been set up by '.str_repeat('x', 40_000));
        $remote = new LocalRemoteDirectory($root);
        $at = static fn (string $name, ?int $size): bool => (new PlaceholderPage)->isAt(
            $remote,
            RemotePath::fromString("/$name"),
            $size,
        );

        self::assertSame([true, true], [$at('small.html', 42), $at('small.html', null)]);
        self::assertSame([false, false, false], [
            $at('large.html', 40_019),
            $at('large.html', null),
            $at('large.html', 42),
        ]);
    }
}
