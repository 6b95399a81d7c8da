<?php

declare(strict_types=1);

namespace Tests\Core\Package;

use Cellarium\Core\Package\Finding\FindingCode;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Package\PackageIntake;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\FixedClients;
use Tests\Support\FixedClock;
use Tests\Support\HtmlManner;
use Tests\Support\PlantedFaults;
use Tests\Support\PlantedSite;
use Tests\Support\Scratch;
use Tests\Support\TestStore;
use Tests\Support\Zips;

/**
 * Accuracy of the inspection: sites with planted faults of every kind, one by one and all at once, in HTML as it is
 * written by people and programs. What was planted is found with its file and line, and nothing else is.
 */
final class PlantedFaultsTest extends TestCase
{
    use Scratch;

    /** @return list<string> */
    private function found(PlantedSite $site): array
    {
        $directory = $this->directory();
        $found = (new PackageIntake(
            TestStore::in("$directory/store"),
            new FixedClock,
            sites: new FixedClients(['saltmarshferries.example' => 1, 'www.marshbakery.example' => 2]),
        ))->take(Zips::make("$directory/site.zip", $site->files), 'site-1.0.zip');

        return array_map(
            static fn (PackageFinding $one): string => trim("{$one->code->value} $one->path $one->line"),
            $found->findings,
        );
    }

    private function assertFoundIsPlanted(PlantedSite $site): void
    {
        $found = $this->found($site);
        $planted = $site->planted;
        sort($found);
        sort($planted);
        self::assertSame($planted, $found);
    }

    /** @return iterable<string, array{HtmlManner}> */
    public static function manners(): iterable
    {
        foreach (HtmlManner::cases() as $manner) {
            yield $manner->name => [$manner];
        }
    }

    #[DataProvider('manners')]
    public function test_a_site_without_a_fault_has_no_finding(HtmlManner $manner): void
    {
        $this->assertFoundIsPlanted(new PlantedSite($manner));
    }

    /** @return iterable<string, array{HtmlManner, \Closure(PlantedSite): mixed}> */
    public static function each(): iterable
    {
        foreach (HtmlManner::cases() as $manner) {
            foreach ([...PlantedFaults::all(), ...PlantedFaults::ofTheStartPage()] as $name => $plant) {
                yield "$name, $manner->name" => [$manner, $plant];
            }
        }
    }

    /** @param  \Closure(PlantedSite): mixed  $plant */
    #[DataProvider('each')]
    public function test_a_planted_fault_is_found_and_nothing_else(HtmlManner $manner, \Closure $plant): void
    {
        $site = new PlantedSite($manner);
        $plant($site);

        self::assertNotSame([], $site->planted);
        $this->assertFoundIsPlanted($site);
    }

    #[DataProvider('manners')]
    public function test_all_at_once_are_found(HtmlManner $manner): void
    {
        $site = new PlantedSite($manner);
        foreach (PlantedFaults::all() as $plant) {
            $plant($site);
        }

        $this->assertFoundIsPlanted($site);
    }

    public function test_every_kind_of_finding_is_planted(): void
    {
        $planted = [];
        foreach ([...PlantedFaults::all(), ...PlantedFaults::ofTheStartPage()] as $plant) {
            $site = new PlantedSite(HtmlManner::Tidy);
            $plant($site);
            foreach ($site->planted as $one) {
                $planted[] = explode(' ', $one)[0];
            }
        }
        $codes = array_map(static fn (FindingCode $code): string => $code->value, FindingCode::cases());

        // Modes are no matter of PHP’s zip; a thousand faults, and what a text was before, are other tests’.
        self::assertSame(
            ['text_encoding', 'mode_unusual', 'references_more'],
            array_values(array_diff($codes, $planted)),
        );
    }
}
