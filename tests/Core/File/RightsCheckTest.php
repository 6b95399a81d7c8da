<?php

declare(strict_types=1);

namespace Tests\Core\File;

use Cellarium\Core\File\RightsCheck;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Package\Type\InstalledPackage;
use Cellarium\Core\Package\Type\TypeYaml;
use Cellarium\Core\Path\RelativePath;
use PHPUnit\Framework\TestCase;

/** Rights of a whole site against what its package type wants. */
final class RightsCheckTest extends TestCase
{
    /**
     * @param  array<string, int|null>  $modes  by path; a directory ends with a slash
     * @return array<string, string> what is wrong and what would mend it, by path
     */
    private static function check(array $modes, ?string $system = null): array
    {
        $types = dirname(__DIR__, 3).'/resources/package-types';
        $yaml = new TypeYaml((string) file_get_contents("$types/schema.json"));
        $installed = $system === null ? [] : [new InstalledPackage(
            $yaml->parse((string) file_get_contents("$types/quaylight.yaml")),
            $system,
            null,
            '1.0',
        )];
        $entries = [];
        foreach ($modes as $path => $mode) {
            $entries[] = new ManifestEntry(
                RelativePath::fromString(rtrim($path, '/')),
                str_ends_with($path, '/') ? EntryKind::Directory : EntryKind::File,
                0,
                1,
                $mode,
            );
        }
        $wrong = [];
        foreach ((new RightsCheck($installed))->of(Manifest::fromEntries($entries)) as $one) {
            $wrong[(string) $one->entry->path] = sprintf('%s %o', $one->fault->value, $one->wanted);
        }

        return $wrong;
    }

    public function test_what_everyone_may_change_and_what_runs_as_somebody_else_is_told(): void
    {
        self::assertSame(
            [
                'cgi' => 'anyone_writes 755',
                'cgi/run.php' => 'runs_as_owner 755',
                'page.html' => 'anyone_writes 644',
            ],
            self::check([
                'page.html' => 0666,
                'fine.html' => 0644,
                'odd.html' => null,
                'cgi/' => 0777,
                'cgi/run.php' => 04755,
                'shared/' => 02775,
            ]),
        );
    }

    public function test_what_a_system_has_to_write_is_writable_and_nothing_else(): void
    {
        $modes = [
            'data/' => 0755,
            'data/site.ini' => 0644,
            'uploads/' => 0775,
            'engine/' => 0755,
            'engine/core.php' => 0644,
        ];

        self::assertSame(
            ['data' => 'must_be_writable 775', 'data/site.ini' => 'anyone_reads 640'],
            self::check($modes, ''),
        );
        self::assertSame([], self::check($modes), 'without the system nobody has to write there');
        $below = array_combine(array_map(static fn (string $path): string => "blog/$path", array_keys($modes)), $modes);
        self::assertSame(
            ['blog/data' => 'must_be_writable 775', 'blog/data/site.ini' => 'anyone_reads 640'],
            self::check($below, 'blog'),
        );
    }

    public function test_passwords_are_not_for_everyone(): void
    {
        self::assertSame(
            ['.env' => 'anyone_reads 640', 'dump.sql' => 'anyone_writes 644'],
            self::check(['.env' => 0644, 'dump.sql' => 0666, 'safe/.env' => 0600]),
        );
    }

    public function test_what_everyone_may_change_is_offered_as_it_was_deployed(): void
    {
        $entry = static fn (string $path, int $mode): ManifestEntry => new ManifestEntry(
            RelativePath::fromString($path),
            EntryKind::File,
            1,
            null,
            $mode,
        );
        $live = Manifest::fromEntries([$entry('a.html', 0777), $entry('b.html', 0777), $entry('run.cgi', 0777)]);
        $deployed = Manifest::fromEntries([$entry('a.html', 0640), $entry('b.html', 0666)]);
        $wanted = [];
        foreach ((new RightsCheck([], $deployed))->of($live) as $one) {
            $wanted[$one->entry->path->toString()] = sprintf('%03o', $one->wanted);
        }
        self::assertSame(['a.html' => '640', 'b.html' => '644', 'run.cgi' => '755'], $wanted);
    }
}
