<?php

declare(strict_types=1);

namespace App\Storage;

use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Storage\ContentKeys;
use Cellarium\Core\Storage\S3Settings;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Storage\StoreSettings;

/** The stores of contents and the keys they are sealed with, as the settings say. */
final class Stores
{
    /**
     * @throws StoreFailure where a directory is not this installation's own, or the keys are not there and something is
     *     sealed with them
     */
    public static function settings(): StoreSettings
    {
        Installation::check();

        return self::unchecked();
    }

    /**
     * The same before the directories bear their marks.
     *
     * @throws StoreFailure
     */
    public static function unchecked(): StoreSettings
    {
        $directory = config('cellarium.var').'/contents';
        $s3 = self::s3();
        $file = self::keyFile();

        return new StoreSettings(
            $directory,
            is_file($file) ? ContentKeys::read($file) : self::first($file, $directory, $s3),
            $s3,
        );
    }

    public static function keyFile(): string
    {
        return (string) config('cellarium.store.key_file');
    }

    /**
     * Reads one of what lies there: whether the store answers and the keys are those it was sealed with.
     *
     * @throws StoreFailure
     */
    public static function check(StoreSettings $settings): void
    {
        $mark = Installation::mark();
        $mark === null || $settings->objects()->mustHave($mark);
        foreach ($settings->objects()->sizes() as $sha256 => $ignored) {
            $settings->open()->keyOf($sha256);

            return;
        }
    }

    /**
     * Makes another key, for what is kept from now on.
     *
     * @throws StoreFailure
     */
    public static function rotate(): ContentKeys
    {
        $keys = self::settings()->keys->rotated();
        $keys->write(self::keyFile());

        return $keys;
    }

    /**
     * Takes those keys out of the file that nothing is sealed with any more.
     *
     * @return list<string> their ids
     *
     * @throws StoreFailure
     */
    public static function forgetKeys(): array
    {
        $settings = self::settings();
        $store = $settings->open();
        $used = [$settings->keys->current => true];
        foreach ($settings->objects()->sizes() as $sha256 => $ignored) {
            $used[$store->keyOf($sha256)] = true;
        }
        $unused = array_values(array_diff($settings->keys->ids(), array_keys($used)));
        $left = array_reduce(
            $unused,
            static fn (ContentKeys $keys, string $id): ContentKeys => $keys->without($id),
            $settings->keys,
        );
        $unused === [] || $left->write(self::keyFile());

        return $unused;
    }

    private static function s3(): ?S3Settings
    {
        $s3 = config('cellarium.store.s3');

        return is_array($s3) && $s3['bucket'] !== '' ? new S3Settings(
            $s3['endpoint'],
            $s3['region'],
            $s3['bucket'],
            $s3['prefix'],
            $s3['key'],
            new Secret($s3['secret']),
        ) : null;
    }

    /** Made where nothing has been sealed yet: else a lost key would look like a new store. */
    private static function first(string $file, string $directory, ?S3Settings $s3): ContentKeys
    {
        $keys = ContentKeys::generate();
        $objects = (new StoreSettings($directory, $keys, $s3))->objects();
        foreach ($objects->sizes() as $ignored) {
            throw StoreFailure::noKeyFile($file);
        }
        $own = "$file.".bin2hex(random_bytes(6));
        $keys->write($own);
        // Of two processes that come here at once, one makes it and both read it.
        $isFirst = @link($own, $file);
        @unlink($own);

        return $isFirst || is_file($file) ? ContentKeys::read($file) : throw StoreFailure::writing($file);
    }
}
