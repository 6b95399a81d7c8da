<?php

declare(strict_types=1);

namespace Tests\Core\Package\Fit;

use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Package\Fit\PackageMarks;
use Cellarium\Core\Package\Fit\PackageTraits;
use Cellarium\Core\Package\Fit\SiteFit;
use Cellarium\Core\Package\Inspection;
use Cellarium\Core\Package\PackageIntake;
use PHPUnit\Framework\TestCase;
use Tests\Support\FixedClock;
use Tests\Support\Scratch;
use Tests\Support\TestStore;
use Tests\Support\Zips;

final class FitTest extends TestCase
{
    use Scratch;

    /** @param  array<string, string>  $files */
    private function taken(array $files): Inspection
    {
        $directory = $this->directory();

        return (new PackageIntake(TestStore::in("$directory/store"), new FixedClock))->take(
            Zips::make("$directory/x.zip", $files),
            'x-1.zip',
        );
    }

    public function test_a_package_says_whose_it_is(): void
    {
        $traits = $this->taken([
            'index.html' => '<title>Ferries on the sound</title><link rel=canonical href=https://www.ferries.example/>'
                .'<a href="mailto:crew@ferries.example?subject=x">x</a><a href="https://tideclock.example/">Tides</a>'
                .'<meta property="og:url" content="https://ferries.example/">',
            'about.html' => '<title>About</title><a href="https://tideclock.example/a">x</a>',
            'sitemap.xml' => '<urlset><url><loc>https://ferries.example/about.html</loc></url></urlset>',
            'robots.txt' => "User-agent: *\nSitemap: https://ferries.example/sitemap.xml\n",
        ])->traits;

        self::assertSame(['ferries.example' => 4, 'www.ferries.example' => 1], $traits->own);
        self::assertSame(2, $traits->linked['tideclock.example']);
        self::assertSame(['Ferries on the sound'], $traits->titles);
        self::assertEquals($traits, PackageTraits::fromFields(new JsonFields($traits->toArray())));
    }

    public function test_versions_of_a_package_have_most_marks_in_common(): void
    {
        $files = ['index.html' => '<title>x</title>'];
        for ($number = 0; $number < 400; $number++) {
            $files["p/$number.html"] = str_repeat("page $number ", 40);
        }
        $before = $this->taken($files);
        for ($number = 0; $number < 40; $number++) {
            $files["p/$number.html"] .= 'changed';
        }
        $after = $this->taken($files);
        $marks = array_map(
            static fn (Inspection $one): array => PackageMarks::find($one->manifest, $one->traits),
            [$before, $after],
        );

        self::assertCount(140, $marks[0]);
        self::assertGreaterThan(100, count(array_intersect(...$marks)));
    }

    public function test_another_site_is_clearly_better_where_it_has_more_than_twice_the_evidence(): void
    {
        $none = new SiteFit;
        $titles = new SiteFit(titles: 3, files: 12);

        self::assertTrue($titles->isClearlyBetterThan($none));
        self::assertFalse($none->isClearlyBetterThan($titles));
        self::assertFalse($titles->isClearlyBetterThan(new SiteFit(own: 5, isOfTheSameName: true)));
        // A link in every footer makes no site of somebody else's.
        self::assertFalse((new SiteFit(linked: 33))->isClearlyBetterThan($none));
        self::assertSame('3 titles and 12 files in it are of that site', $titles->inWords());
        self::assertSame(
            '1 address in it is of that site, and a version of it was deployed there',
            (new SiteFit(own: 1, linked: 4, isOfTheSameName: true))->inWords(),
        );
        self::assertSame('', $none->inWords());
    }
}
