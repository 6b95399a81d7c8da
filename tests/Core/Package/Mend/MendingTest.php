<?php

declare(strict_types=1);

namespace Tests\Core\Package\Mend;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Package\Inspection;
use Cellarium\Core\Package\Mend\Mend;
use Cellarium\Core\Package\Mend\MendPlan;
use Cellarium\Core\Package\Mend\PackageMender;
use Cellarium\Core\Package\PackageIntake;
use Cellarium\Core\Package\PackageOrigin;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\StoreSettings;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\FixedClock;
use Tests\Support\HtmlManner;
use Tests\Support\PlantedFaults;
use Tests\Support\PlantedSite;
use Tests\Support\Scratch;
use Tests\Support\Zips;

/** What was mended is right then, and every byte that was not meant is as it was. */
final class MendingTest extends TestCase
{
    use Scratch;

    private ContentStore $store;

    private PackageIntake $intake;

    private string $scratchDirectory;

    protected function setUp(): void
    {
        $this->scratchDirectory = $this->directory();
        $this->store = StoreSettings::scratch("$this->scratchDirectory/store")->open();
        $this->intake = new PackageIntake($this->store, new FixedClock);
    }

    /** @param  array<string, string>  $files */
    private function taken(array $files): Inspection
    {
        return $this->intake->take(Zips::make("$this->scratchDirectory/x.zip", $files), 'x-1.zip');
    }

    private function plan(Inspection $found, bool $guesses = false): MendPlan
    {
        return (new PackageMender($this->store))->plan($found->manifest, array_values(array_filter(
            Mend::all($found->findings),
            static fn (Mend $mend): bool => $guesses || $mend->kind->isSafe(),
        )));
    }

    private function mended(MendPlan $plan): Manifest
    {
        return (new PackageMender($this->store))->carryOut($plan);
    }

    /** @return list<string> */
    private function codesOf(Manifest $mended): array
    {
        $found = $this->intake->inspector()->inspect($mended, PackageOrigin::named('x-1.zip'));

        return array_map(
            static fn (PackageFinding $one): string => "{$one->code->value} $one->path",
            $found->findings,
        );
    }

    /** @return array<string, string> */
    private function texts(Manifest $mended): array
    {
        $texts = [];
        foreach ($mended->files() as $file) {
            $texts["$file->path"] = $this->store->text((string) $file->sha256);
        }

        return $texts;
    }

    /** @return iterable<string, array{string, string}> a page as it is and as it is then; img/harbour.jpg is there */
    public static function references(): iterable
    {
        yield 'in quotes' => ['<img src="img/Harbour.JPG">', '<img src="img/harbour.jpg">'];
        yield 'in none' => ['<img src=IMG/harbour.jpg alt=x>', '<img src=img/harbour.jpg alt=x>'];
        yield 'with blanks' => ["<img src='\n img/Harbour.jpg '>", "<img src='\n img/harbour.jpg '>"];
        yield 'with a question' => [
            '<a href="./IMG/Harbour.jpg?a=B&amp;c=D#E">',
            '<a href="./img/harbour.jpg?a=B&amp;c=D#E">',
        ];
        yield 'from the top' => ['<img src="/Img//Harbour.jpg">', '<img src="/img//harbour.jpg">'];
        yield 'percent-encoded' => ['<a href="GR%C3%B6%c3%9fe.html">', '<a href="gr%C3%B6%C3%9Fe.html">'];
        yield 'in another form' => ["<a href=\"gro\u{308}\u{df}e.html\">", "<a href=\"gr\u{f6}\u{df}e.html\">"];
        yield 'in a set' => [
            '<img srcset="img/harbour.jpg 1x,img/HARBOUR.jpg 2x">',
            '<img srcset="img/harbour.jpg 1x,img/harbour.jpg 2x">',
        ];
        yield 'in a style' => [
            '<p style="background:url(\'img/Harbour.jpg\')">',
            '<p style="background:url(\'img/harbour.jpg\')">',
        ];
        yield 'of a directory' => ['<a href="NEWS/#top">', '<a href="news/#top">'];
        yield 'twice in a line' => [
            '<img src=img/Harbour.jpg><img src=img/Harbour.jpg>',
            '<img src=img/harbour.jpg><img src=img/harbour.jpg>',
        ];
        yield 'below a base' => [
            '<base href="img/"><img src="Harbour.jpg">',
            '<base href="img/"><img src="harbour.jpg">',
        ];
    }

    #[DataProvider('references')]
    public function test_a_name_is_corrected_in_its_place_only(string $page, string $then): void
    {
        $around = "<!doctype html>\r\n<title>x</title>\t<!-- Img/Harbour.JPG -->\n%s\n\n"
            ."  <p>img/Harbour.JPG &amp; \xe9</p>";
        $files = [
            'index.html' => sprintf($around, $page),
            'img/harbour.jpg' => 'x',
            "gr\u{f6}\u{df}e.html" => '<title>x</title>',
            'news/index.html' => '<title>x</title>',
        ];

        $plan = $this->plan($this->taken($files));

        self::assertSame([], $plan->notDone);
        self::assertEquals(['index.html' => sprintf($around, $then)] + $files, $this->texts($this->mended($plan)));
    }

    /** @return iterable<string, array{string}> */
    public static function left(): iterable
    {
        yield 'character references in the name' => ['<img src="img&#47;Harbour.jpg">'];
        yield 'escapes' => ['<style>p{background:url(img/H\\61rbour.JPG)}</style>'];
        yield 'a style with character references' => ['<p style="background:url(&quot;img/Harbour.jpg&quot;)">'];
    }

    #[DataProvider('left')]
    public function test_what_cannot_be_said_in_its_place_is_left_and_told(string $page): void
    {
        $found = $this->taken(['index.html' => "<title>x</title>$page", 'img/harbour.jpg' => 'x']);
        $plan = $this->plan($found);

        self::assertSame([[], 1], [$plan->changes, count($plan->notDone)]);
        self::assertEquals($found->manifest, $this->mended($plan));
    }

    public function test_a_guess_is_made_when_asked_only(): void
    {
        $found = $this->taken([
            'news/index.html' => '<title>x</title><a href="../teem.html#us"><a href="/teem.html">',
            'team.html' => '<title>x</title>',
            'index.html' => '<title>x</title>',
        ]);

        self::assertSame([], $this->plan($found)->changes);
        self::assertSame(
            '<title>x</title><a href="../team.html#us"><a href="/team.html">',
            $this->texts($this->mended($this->plan($found, guesses: true)))['news/index.html'],
        );
    }

    public function test_the_start_page_is_renamed_and_what_refers_to_it_follows(): void
    {
        $mended = $this->mended($this->plan($this->taken([
            'Home.html' => '<title>x</title><a href="home.html#a" id=a><a href=news/a.html>',
            'news/a.html' => '<title>x</title><a href="../Home.html?b">Home.html</a>',
            'sw.js' => 'import "./other.js"',
            'other.js' => '',
        ])));

        self::assertSame([
            'index.html' => '<title>x</title><a href="index.html#a" id=a><a href=news/a.html>',
            'news/a.html' => '<title>x</title><a href="../index.html?b">Home.html</a>',
        ], array_intersect_key($this->texts($mended), ['index.html' => 0, 'news/a.html' => 0]));
        self::assertNull($mended->get('Home.html'));
        self::assertSame([], array_filter(
            $this->codesOf($mended),
            static fn (string $code): bool => ! str_starts_with($code, 'file_unused'),
        ));
    }

    public function test_a_directory_becomes_the_top_and_leftovers_are_left_out(): void
    {
        $plan = $this->plan($this->taken([
            'README.md' => 'x',
            'src/app.ts' => 'x',
            'dist/index.html' => '<title>x</title><img src="a.png">',
            'dist/index.html~' => 'x',
            'dist/a.png' => 'x',
            'node_modules/x/y.js' => 'x',
        ]));
        $mended = $this->mended($plan);

        self::assertSame(
            ['a.png', 'index.html'],
            array_map(static fn (ManifestEntry $one): string => "$one->path", $mended->all()),
        );
        self::assertSame([], $this->codesOf($mended));
        self::assertCount(6, $plan->changes);
    }

    /** @return iterable<string, array{HtmlManner}> */
    public static function manners(): iterable
    {
        foreach (HtmlManner::cases() as $manner) {
            yield $manner->name => [$manner];
        }
    }

    #[DataProvider('manners')]
    public function test_of_all_faults_that_can_be_planted_those_that_are_safe_are_gone_then(HtmlManner $manner): void
    {
        $site = new PlantedSite($manner);
        foreach (PlantedFaults::all() as $plant) {
            $plant($site);
        }
        $found = $this->taken($site->files);
        $plan = $this->plan($found);
        $mended = $this->mended($plan);
        $codes = $this->codesOf($mended);
        $had = array_map(static fn (PackageFinding $one): string => "{$one->code->value} $one->path", $found->findings);

        self::assertSame([], $plan->notDone);
        foreach (['reference_case', 'leftover_copy', 'leftover_development', 'secret_key', 'secret_setting'] as $code) {
            self::assertNotSame([], preg_grep("/^$code /", $had));
            self::assertSame([], preg_grep("/^$code /", $codes));
        }
        self::assertSame([], array_values(array_diff($codes, $had)), 'Mending has brought something new.');
    }
}
