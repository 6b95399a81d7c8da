<?php

declare(strict_types=1);

namespace Tests\Core\DocumentRoot;

use Cellarium\Core\DocumentRoot\PhpAnswer;
use Cellarium\Core\DocumentRoot\PhpProbe;
use Cellarium\Core\DocumentRoot\ServedSite;
use Cellarium\Core\Package\Type\Needs;
use Cellarium\Core\Path\PublicAddress;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Web\WebAnswer;
use Cellarium\Core\Web\WebFetcher;
use PHPUnit\Framework\TestCase;
use Tests\Support\LocalRemoteDirectory;
use Tests\Support\Scratch;

final class PhpProbeTest extends TestCase
{
    use Scratch;

    private const NONCE = 'k2j4h6g8f0';

    private string $live;

    /** @var list<string> addresses that were asked, with the address of the host where it was given */
    private array $asked = [];

    /** @param  \Closure(string, ?string): array{int, string}  $answers  status and body for the text of the program */
    private function ask(\Closure $answers, ?string $host = null): PhpAnswer
    {
        $this->live = $this->directory();
        mkdir("$this->live/www");
        $fetcher = new class(function (string $url, ?string $at) use ($answers): array {
            $this->asked[] = trim("$url $at");

            return $answers((string) file_get_contents("$this->live/www/cellarium-".self::NONCE.'.php'), $at);
        }) implements WebFetcher
        {

            /** @param  \Closure(string, ?string): array{int, string}  $answers */
            public function __construct(private \Closure $answers)
            {
            }

            public function fetch(string $url, ?string $at = null): WebAnswer
            {
                [$status, $body] = ($this->answers)($url, $at);

                return new WebAnswer($url, $status, hash('sha256', $body), strlen($body), $body);
            }
        };
        $answer = PhpProbe::ask(
            new ServedSite(
                new LocalRemoteDirectory($this->live),
                $fetcher,
                new PublicAddress('http://site.example', RemotePath::fromString('/www')),
                $host,
            ),
            RemotePath::fromString('/www'),
            self::NONCE,
        );
        self::assertSame(['.', '..'], scandir("$this->live/www"), 'nothing is left behind');

        return $answer;
    }

    /** Really run. */
    private static function ran(string $program): string
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'probe');
        file_put_contents($file, $program);
        exec(escapeshellarg(PHP_BINARY).' '.escapeshellarg($file), $lines);
        unlink($file);

        return implode("\n", $lines);
    }

    public function test_a_site_that_runs_it_says_its_version_and_extensions(): void
    {
        $answer = $this->ask(static fn (string $program): array => [200, self::ran($program)]);
        self::assertSame([PHP_VERSION, null], [$answer->version, $answer->trouble]);
        self::assertContains('mbstring', $answer->extensions);
        self::assertSame(['http://site.example/cellarium-'.self::NONCE.'.php'], $this->asked);
        self::assertNull((new Needs('8.1', ['mbstring']))->lacking($answer->version, $answer->extensions));
    }

    public function test_a_site_that_shows_programs_as_they_are_runs_none(): void
    {
        $answer = $this->ask(static fn (string $program): array => [200, $program]);
        self::assertSame([null, null], [$answer->version, $answer->trouble]);
        self::assertSame(
            'the site runs no PHP, and PHP 8.1 or newer is needed',
            (new Needs('8.1'))->lacking($answer->version, $answer->extensions),
        );
    }

    public function test_where_the_domain_leads_elsewhere_the_host_itself_is_asked(): void
    {
        $answer = $this->ask(
            static fn (string $program, ?string $at): array => $at === null ? [404, ''] : [200, self::ran($program)],
            '127.0.0.9',
        );
        self::assertSame(PHP_VERSION, $answer->version);
        self::assertStringEndsWith(' 127.0.0.9', $this->asked[1]);
    }

    public function test_an_answer_that_is_not_understood_is_no_answer(): void
    {
        $bodies = [
            '',
            '<h1>Welcome</h1>',
            'cellarium '.self::NONCE.' 8.2.1 '.str_repeat('a,', 400),
            'cellarium '.self::NONCE.' 8.2.1 <script>',
            'cellarium another 8.2.1 mbstring',
        ];
        foreach ($bodies as $body) {
            $answer = $this->ask(static fn (): array => [200, $body]);
            self::assertSame(
                [null, 'http://site.example/cellarium-'.self::NONCE.'.php answered with something else'],
                [$answer->version, $answer->trouble],
            );
        }
        self::assertStringEndsWith('status 500', (string) $this->ask(static fn (): array => [500, ''])->trouble);
    }

    public function test_what_is_lacking_is_said(): void
    {
        $needs = new Needs('8.1', ['mbstring', 'gd']);
        self::assertSame('the site runs PHP 7.4.33, and 8.1 or newer is needed', $needs->lacking('7.4.33', []));
        self::assertSame('the PHP 8.2.1 of the site lacks gd', $needs->lacking('8.2.1', ['mbstring']));
        self::assertNull((new Needs(bytes: 5))->lacking(null, []));
    }
}
