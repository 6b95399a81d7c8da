<?php

declare(strict_types=1);

namespace Tests\Core\Manifest;

use Cellarium\Core\Manifest\EarlierLook;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use PHPUnit\Framework\TestCase;

/** What is known of a file is taken over only where a change since would show in the listing. */
final class EarlierLookTest extends TestCase
{
    /** @param  array<string, int>  $times  by path */
    private static function listing(array $times, ?string $sha256 = null): Manifest
    {
        return Manifest::fromEntries(array_map(
            static fn (string $path, int $time): ManifestEntry => new ManifestEntry(
                RelativePath::fromString($path),
                EntryKind::File,
                1,
                $time,
                sha256: $sha256,
            ),
            array_keys($times),
            $times,
        ));
    }

    /**
     * @param  array<string, int>  $times  as listed now, by path
     * @return list<string> paths whose contents are known
     */
    private static function known(EarlierLook $look, array $times): array
    {
        $known = [];
        foreach ($look->applied(self::listing($times))->all() as $entry) {
            $entry->sha256 === null || $known[] = (string) $entry->path;
        }

        return $known;
    }

    public function test_without_a_clock_of_the_server_a_minute_is_left(): void
    {
        $times = ['late' => 940, 'old' => 939];
        self::assertSame(['old'], self::known(EarlierLook::at(1000, self::listing($times, 'h')), $times));
    }

    public function test_after_sending_all_but_the_last_second_is_known_and_that_too_once_it_has_gone_by(): void
    {
        $times = ['first' => 5000, 'last' => 5001];
        $look = static fn (bool $isPast): EarlierLook => EarlierLook::afterSending(
            1000,
            self::listing($times, 'h'),
            5001,
            $isPast,
        );
        self::assertSame(['first'], self::known($look(false), $times));
        self::assertSame(['first', 'last'], self::known($look(true), $times));
        self::assertSame(['first'], self::known($look(true), ['last' => 5002] + $times), 'changed since');
    }

    public function test_a_later_look_keeps_what_was_sure(): void
    {
        $times = ['sent' => 5001];
        $first = EarlierLook::afterSending(1000, self::listing($times, 'h'), 5001, true);
        self::assertSame(['sent'], self::known($first->then(1010, self::listing($times, 'h')), $times));
    }

    public function test_a_look_survives_being_stored(): void
    {
        $look = EarlierLook::at(1000, self::listing(['b' => 6, 'ä' => 5], 'h'));
        self::assertEquals($look, EarlierLook::fromText(implode('', iterator_to_array($look->lines(), false))));
        self::assertSame([], EarlierLook::never()->manifest->all());
    }
}
