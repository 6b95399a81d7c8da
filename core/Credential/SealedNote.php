<?php

declare(strict_types=1);

namespace Cellarium\Core\Credential;

/**
 * Text that only the holder of a token can read: what is stored opens nothing by itself.
 *
 * The token is 256 random bits; its hash finds the note, a key derived from it opens it (HKDF, RFC 5869, and
 * XSalsa20-Poly1305 of libsodium).
 */
final readonly class SealedNote
{
    private function __construct(
        public string $finder,
        public string $sealed,
    ) {
    }

    /** @return array{self, Secret} the note and its token, of letters, digits, "-" and "_" */
    public static function seal(#[\SensitiveParameter] string $text): array
    {
        $token = sodium_bin2base64(random_bytes(32), SODIUM_BASE64_VARIANT_URLSAFE_NO_PADDING);
        $nonce = random_bytes(SODIUM_CRYPTO_SECRETBOX_NONCEBYTES);
        $sealed = base64_encode($nonce.sodium_crypto_secretbox($text, $nonce, self::key($token)));

        return [new self(self::finder($token), $sealed), new Secret($token)];
    }

    /** What a note is looked up by; tells nothing of the token. */
    public static function finder(#[\SensitiveParameter] string $token): string
    {
        return hash('sha256', "find $token");
    }

    /** Null when the token is not the right one, or what was stored is no such note. */
    public static function open(string $sealed, #[\SensitiveParameter] string $token): ?string
    {
        $bytes = base64_decode($sealed, true);
        if (
            $bytes === false
            || strlen($bytes) < SODIUM_CRYPTO_SECRETBOX_NONCEBYTES + SODIUM_CRYPTO_SECRETBOX_MACBYTES
        ) {
            return null;
        }
        $text = sodium_crypto_secretbox_open(
            substr($bytes, SODIUM_CRYPTO_SECRETBOX_NONCEBYTES),
            substr($bytes, 0, SODIUM_CRYPTO_SECRETBOX_NONCEBYTES),
            self::key($token),
        );

        return $text === false ? null : $text;
    }

    private static function key(#[\SensitiveParameter] string $token): string
    {
        return hash_hkdf('sha256', $token, SODIUM_CRYPTO_SECRETBOX_KEYBYTES, 'open');
    }
}
