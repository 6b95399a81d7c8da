<?php

declare(strict_types=1);

namespace Cellarium\Core\Sheet;

use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Storage\WholeFile;

/** The key that sheets are signed with: Ed25519 (RFC 8032). It lies in a file of its own, which is in no database. */
final readonly class SheetKey
{
    /** @param  Secret  $pair  128 hexadecimal digits and its public half, as libsodium makes them */
    private function __construct(private Secret $pair)
    {
    }

    public static function generate(): self
    {
        return new self(new Secret(sodium_bin2hex(sodium_crypto_sign_keypair())));
    }

    /** @throws \UnexpectedValueException where the file is not there or holds no key */
    public static function read(string $file): self
    {
        $text = @file_get_contents($file);
        $key = JsonFields::fromJson($text === false ? '' : $text)->text('ed25519');
        preg_match('/\A[0-9a-f]{192}\z/', $key) === 1 || throw new \UnexpectedValueException('This is no key.');

        return new self(new Secret($key));
    }

    /** @throws StoreFailure */
    public function write(string $file): void
    {
        $text = json_encode(['ed25519' => $this->pair->reveal()], JSON_THROW_ON_ERROR)."\n";
        WholeFile::write($file, $text, 0600);
    }

    /** @return string 64 bytes */
    public function sign(string $bytes): string
    {
        return sodium_crypto_sign_detached($bytes, sodium_crypto_sign_secretkey($this->bytes()));
    }

    /** @return non-empty-string the public half, base64 */
    public function public(): string
    {
        return base64_encode(sodium_crypto_sign_publickey($this->bytes()));
    }

    /** @return non-empty-string */
    private function bytes(): string
    {
        $bytes = sodium_hex2bin($this->pair->reveal());
        assert($bytes !== '');

        return $bytes;
    }
}
