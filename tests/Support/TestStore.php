<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Storage\ContentKeys;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\StoreSettings;

/** A store in a directory, with a key that is the same for all tests and the processes they start. */
final class TestStore
{
    private const KEYS = ['current' => 'k000000000000001', 'keys' => ['k000000000000001' => self::KEY]];

    private const KEY = '00112233445566778899aabbccddeeff00112233445566778899aabbccddeeff';

    public static function in(string $directory): ContentStore
    {
        return self::settings($directory)->open();
    }

    public static function settings(string $directory): StoreSettings
    {
        $keys = ContentKeys::fromFields(JsonFields::fromJson((string) json_encode(self::KEYS)));

        return new StoreSettings($directory, $keys, isDurable: false);
    }

    /** Where contents lie, for whoever damages them. */
    public static function file(string $directory, string $sha256): string
    {
        return "$directory/".substr($sha256, 0, 2).'/'.substr($sha256, 2);
    }

    /** One bit of what is stored is another. */
    public static function flipABit(string $directory, string $sha256, int $at = -1): void
    {
        $file = self::file($directory, $sha256);
        $bytes = (string) file_get_contents($file);
        $at = $at < 0 ? strlen($bytes) + $at : $at;
        $bytes[$at] = chr(ord($bytes[$at]) ^ 1);
        file_put_contents($file, $bytes);
    }
}
