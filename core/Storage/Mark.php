<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

use Cellarium\Core\Json\JsonFields;

/**
 * The identity of an installation, in a small file that lies in each of its directories that may be a mount of its own.
 *
 * A directory whose disk is not mounted is empty and can be written to: without the mark it looks like a new one.
 */
final readonly class Mark
{
    public const FILE = '.cellarium-mark';

    private const VERSION = 1;

    /** @param  string  $identity  of the installation, 32 hexadecimal digits */
    private function __construct(public string $identity)
    {
    }

    public static function generate(): self
    {
        return new self(bin2hex(random_bytes(16)));
    }

    /** @throws \UnexpectedValueException for anything else than 32 hexadecimal digits */
    public static function fromIdentity(string $identity): self
    {
        return preg_match('/\A[0-9a-f]{32}\z/', $identity) === 1
            ? new self($identity)
            : throw new \UnexpectedValueException('The identity of an installation has 32 hexadecimal digits.');
    }

    /** @throws \UnexpectedValueException for what is no mark, or one that only a later version can read */
    public static function fromText(string $text): self
    {
        $fields = JsonFields::fromJson($text);
        $fields->number('version') === self::VERSION || throw new \UnexpectedValueException('A later version wrote '
            .'it.');

        return self::fromIdentity($fields->text('identity'));
    }

    public function toText(): string
    {
        return json_encode([
            'version' => self::VERSION,
            'identity' => $this->identity,
            'is' => 'The mark of a Cellarium in its directories. Leave it here: without it nothing starts.',
        ], JSON_PRETTY_PRINT | JSON_THROW_ON_ERROR)."\n";
    }

    /** @return self|null null where none lies there, or the file is none */
    public static function in(string $directory): ?self
    {
        $text = @file_get_contents("$directory/".self::FILE);
        try {
            return $text === false ? null : self::fromText($text);
        } catch (\UnexpectedValueException) {
            return null;
        }
    }

    /** @throws StoreFailure */
    public function putInto(string $directory): void
    {
        WholeFile::write("$directory/".self::FILE, $this->toText(), 0600);
    }

    /**
     * @param  list<string>  $directories
     *
     * @throws StoreFailure naming the first that has another mark, or none
     */
    public function mustBeIn(array $directories): void
    {
        foreach ($directories as $directory) {
            $found = self::in($directory);
            if ($found?->identity !== $this->identity) {
                throw $found === null ? StoreFailure::noMark($directory) : StoreFailure::otherMark($directory);
            }
        }
    }
}
