<?php

declare(strict_types=1);

namespace Tests\Core\Package;

use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Package\Inspection;
use Cellarium\Core\Package\Mend\Mend;
use Cellarium\Core\Package\PackageIntake;
use Cellarium\Core\Package\Type\PackageType;
use Cellarium\Core\Package\Type\PackageTypes;
use Cellarium\Core\Package\Type\TypeSource;
use Cellarium\Core\Package\Type\TypeYaml;
use PHPUnit\Framework\TestCase;
use Tests\Support\FixedClock;
use Tests\Support\Scratch;
use Tests\Support\TestStore;
use Tests\Support\Zips;

/** An application whose public folder is the document root: only what visitors can fetch is looked at as a site. */
final class ApplicationInspectionTest extends TestCase
{
    use Scratch;

    private const SHIPPED = __DIR__.'/../../../resources/package-types';

    /** @param  array<string, string>  $files */
    private function inspect(array $files): Inspection
    {
        $types = new class(self::SHIPPED) implements TypeSource
        {
            public function __construct(private string $shipped)
            {
            }

            public function types(): PackageTypes
            {
                $yaml = new TypeYaml((string) file_get_contents("$this->shipped/schema.json"));

                return new PackageTypes(array_map(
                    static fn (string $file): PackageType => $yaml->parse((string) file_get_contents($file)),
                    glob("$this->shipped/*.yaml") ?: [],
                ));
            }
        };
        $directory = $this->directory();

        return (new PackageIntake(TestStore::in("$directory/store"), new FixedClock, types: $types))->take(
            Zips::make("$directory/application.zip", $files + [
                'composer.json' => '{"name": "ferries/booking", "version": "1.2.0"}',
                'public/index.php' => '<?php require "../src/Kernel.php";',
                'src/Kernel.php' => '<?php',
            ]),
            'application.zip',
        );
    }

    /** @return list<string> */
    private static function told(Inspection $found): array
    {
        return array_map(
            static fn (PackageFinding $one): string => trim("{$one->code->value} $one->path $one->line"),
            $found->findings,
        );
    }

    public function test_what_lies_above_or_never_leaves_is_nobodys_trouble(): void
    {
        $found = $this->inspect([
            'templates/page.html' => '<title></title><a href="{{ home }}">x</a><img src=/gone.png> lorem ipsum dolor',
            'bin/console' => "#!/usr/bin/env php\n",
            '.env' => "DB_PASSWORD=w4xSeal-of-the-harbour\n",
            'tests/dump.sql' => 'x',
            'README.md' => 'Coming soon',
        ]);
        self::assertSame('php-application', $found->kind?->type?->id);
        self::assertSame([], self::told($found));
    }

    public function test_what_visitors_fetch_is_looked_at_from_the_public_folder(): void
    {
        $found = $this->inspect([
            'public/help/index.html' => "<title>Help with booking</title>\n<link rel=stylesheet href=/css/a.css>\n"
                ."<a href=../css/A.css>x</a>\n<a href=../../src/Kernel.php>x</a>\n<a href=/>Home</a>",
            'public/css/a.css' => 'body{background:url(../img/none.png)}',
            'public/backup.sql' => 'x',
        ]);
        self::assertEqualsCanonicalizing(
            [
                'secret_dump public/backup.sql',
                'reference_case public/help/index.html 3',
                'reference_above_root public/help/index.html 4',
                'reference_missing public/css/a.css 1',
            ],
            self::told($found),
        );
        self::assertSame(
            [
                ['/', 'page', 'index.php'],
                ['/css/', 'listing', null],
                ['/help/', 'page', 'help/index.html'],
                ['/backup.sql', 'exposed', 'backup.sql'],
            ],
            array_map(array_values(...), $found->toArray()['served']),
        );
        self::assertSame([], array_filter(
            Mend::all($found->findings),
            static fn (Mend $mend): bool => $mend->finding->code->isOfReference(),
        ), 'a name from the top would be a wrong one there');
    }
}
