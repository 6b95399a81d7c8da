<?php

declare(strict_types=1);

namespace Tests\Core\Storage;

use Cellarium\Core\Storage\ContentKeys;
use Cellarium\Core\Storage\StoreFailure;
use PHPUnit\Framework\TestCase;
use Tests\Support\Scratch;

/** The file of the keys: of this version and of the one before it, and none of a later one. */
final class ContentKeysTest extends TestCase
{
    use Scratch;

    public function test_it_carries_a_version_and_one_of_before_that_is_read(): void
    {
        $file = $this->directory().'/keys.json';
        $keys = ContentKeys::generate();
        $keys->write($file);
        self::assertSame(0600, fileperms($file) & 0777);
        $fields = json_decode((string) file_get_contents($file), true, flags: JSON_THROW_ON_ERROR);
        self::assertSame(1, $fields['version']);
        self::assertSame($keys->current, ContentKeys::read($file)->current);
        file_put_contents($file, json_encode(array_diff_key($fields, ['version' => true])));
        self::assertSame($keys->reveal(), ContentKeys::read($file)->reveal(), 'of before there were versions');
        file_put_contents($file, json_encode(['version' => 2] + $fields));
        $this->expectException(StoreFailure::class);
        ContentKeys::read($file);
    }
}
