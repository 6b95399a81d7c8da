<?php

declare(strict_types=1);

namespace Tests\Core\Storage;

use Cellarium\Core\Storage\ContentCheck;
use Cellarium\Core\Storage\ContentKeys;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Storage\StoreSettings;
use PHPUnit\Framework\TestCase;
use Tests\Support\Scratch;
use Tests\Support\TestStore;

final class ContentCheckTest extends TestCase
{
    use Scratch;

    private static function check(StoreSettings $settings): ContentCheck
    {
        return new ContentCheck($settings->open(), $settings->objects());
    }

    public function test_all_is_read_in_parts_and_what_is_damaged_is_named(): void
    {
        $settings = TestStore::settings($directory = $this->directory());
        $hashes = [];
        for ($number = 0; $number < 50; $number++) {
            $hashes[] = $settings->open()->put(["contents $number"])->sha256;
        }
        sort($hashes);
        TestStore::flipABit($directory, $hashes[30]);
        file_put_contents(TestStore::file($directory, $hashes[7]), '');
        $damaged = [];
        $files = 0;
        $parts = 0;
        $next = '';
        while ($next !== null) {
            $checked = self::check($settings)->read($next, ($parts + 1) / 5);
            self::assertGreaterThan(2, $checked->files, 'about a fifth each time');
            $files += $checked->files;
            array_push($damaged, ...$checked->damaged);
            $next = $checked->next;
            $parts++;
        }
        self::assertSame([50, [$hashes[7], $hashes[30]]], [$files, $damaged]);
        self::assertSame(5, $parts);
        $stops = self::check($settings)->read('', 1.0, static fn (): bool => false);
        self::assertSame([0, $hashes[0]], [$stops->files, $stops->next]);
    }

    public function test_after_a_rotation_the_old_key_is_needed_until_all_was_read_once(): void
    {
        $directory = $this->directory();
        $old = ContentKeys::generate();
        $hashes = [];
        foreach (range(0, 9) as $number) {
            $hashes[] = (new StoreSettings($directory, $old))->open()->put(["contents $number"])->sha256;
        }
        $rotated = new StoreSettings($directory, $old->rotated());
        self::assertSame(10, self::check($rotated)->read('', 1.0)->sealedAnew);
        self::assertSame(0, self::check($rotated)->read('', 1.0)->sealedAnew);
        $alone = (new StoreSettings($directory, $rotated->keys->without($old->current)))->open();
        self::assertSame('contents 4', $alone->text($hashes[4]));
    }

    public function test_without_the_key_nothing_is_said_to_be_damaged(): void
    {
        $directory = $this->directory();
        (new StoreSettings($directory, ContentKeys::generate()))->open()->put(['one']);
        $this->expectException(StoreFailure::class);
        $this->expectExceptionMessage('not in the key file');
        self::check(new StoreSettings($directory, ContentKeys::generate()))->read('', 1.0);
    }
}
