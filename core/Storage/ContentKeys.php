<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Json\JsonFields;

/**
 * The keys that contents are sealed with: one for what is kept from now on, and those before it, for what was.
 *
 * They lie in a file of their own, which is in no database and no dump; a copy of it belongs somewhere else.
 */
final readonly class ContentKeys
{
    /** Of the file; one without it is of the first. */
    private const VERSION = 1;

    /**
     * @param  string  $current  id of the key for what is kept from now on
     * @param  non-empty-array<string, Secret>  $keys  by id, a letter and 15 hexadecimal digits; 64 of these each
     */
    private function __construct(public string $current, private array $keys)
    {
    }

    public static function generate(): self
    {
        [$id, $key] = self::one();

        return new self($id, [$id => $key]);
    }

    /** @throws StoreFailure where it is not there or not whole */
    public static function read(string $file): self
    {
        $text = @file_get_contents($file);
        try {
            return self::fromFields(JsonFields::fromJson($text === false ? '' : $text));
        } catch (\UnexpectedValueException) {
            throw StoreFailure::noKeyFile($file);
        }
    }

    /** @throws StoreFailure with the old file untouched */
    public function write(string $file): void
    {
        $fields = ['version' => self::VERSION] + $this->reveal();
        WholeFile::write($file, json_encode($fields, JSON_PRETTY_PRINT | JSON_THROW_ON_ERROR)."\n", 0600);
    }

    /** The same with a new key, which is used from now on. */
    public function rotated(): self
    {
        [$id, $key] = self::one();

        return new self($id, [...$this->keys, $id => $key]);
    }

    /** The same without one that nothing is sealed with any more; the one in use stays. */
    public function without(string $id): self
    {
        $others = array_filter(
            $this->keys,
            fn (string $key): bool => $key !== $id || $key === $this->current,
            ARRAY_FILTER_USE_KEY,
        );

        return $others === [] ? $this : new self($this->current, $others);
    }

    /** @return list<string> */
    public function ids(): array
    {
        return array_keys($this->keys);
    }

    /**
     * @return string 32 bytes
     *
     * @throws StoreFailure when it is not among them
     */
    public function key(string $id): string
    {
        return sodium_hex2bin(($this->keys[$id] ?? throw StoreFailure::keyMissing($id))->reveal());
    }

    /**
     * @return array{current: string, keys: array<string, string>} to be handed to a process of ours, and to the file
     */
    public function reveal(): array
    {
        return [
            'current' => $this->current,
            'keys' => array_map(static fn (Secret $key): string => $key->reveal(), $this->keys),
        ];
    }

    /** @throws \UnexpectedValueException for anything else than reveal() gives */
    public static function fromFields(JsonFields $fields): self
    {
        ! $fields->has('version') || $fields->number('version') <= self::VERSION
            || throw new \UnexpectedValueException('A later version wrote it.');
        $current = $fields->text('current');
        $keys = [];
        foreach ($fields->fields('keys')->keys() as $id) {
            $key = $fields->fields('keys')->text($id);
            preg_match('/\Ak[0-9a-f]{15}\z/', $id) === 1 && preg_match('/\A[0-9a-f]{64}\z/', $key) === 1
                || throw new \UnexpectedValueException('This is no key.');
            $keys[$id] = new Secret($key);
        }

        return isset($keys[$current])
            ? new self($current, $keys)
            : throw new \UnexpectedValueException('The key in use is not among them.');
    }

    /** @return array{string, Secret} */
    private static function one(): array
    {
        $id = 'k'.substr(bin2hex(random_bytes(8)), 1);

        return [$id, new Secret(sodium_bin2hex(sodium_crypto_secretstream_xchacha20poly1305_keygen()))];
    }
}
