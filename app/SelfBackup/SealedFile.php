<?php

declare(strict_types=1);

namespace App\SelfBackup;

use App\Failure\Problem;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Storage\ContentKeys;
use Cellarium\Core\Storage\SealedReader;
use Cellarium\Core\Storage\SealedWriter;
use Cellarium\Core\Storage\StoreFailure;

/**
 * One file that is sealed with a passphrase: sixteen bytes of salt, then what SealedWriter writes, under a key that
 * Argon2id makes of the passphrase (RFC 9106).
 */
final class SealedFile
{
    private const KEY = 'k000000000000000';

    /** @param  iterable<string>  $pieces */
    public static function write(string $file, #[\SensitiveParameter] string $passphrase, iterable $pieces): void
    {
        $salt = random_bytes(SODIUM_CRYPTO_PWHASH_SALTBYTES);
        $out = @fopen("$file.new", 'xb');
        $out !== false && chmod("$file.new", 0600) && fwrite($out, $salt) === strlen($salt)
            || throw StoreFailure::writing($file);
        $writer = new SealedWriter($out, $file, self::keys($passphrase, $salt));
        foreach ($pieces as $piece) {
            $writer->write($piece);
        }
        $writer->finish();
        fsync($out) && fclose($out) && rename("$file.new", $file) || throw StoreFailure::writing($file);
    }

    /**
     * @return \Generator<string>
     *
     * @throws Problem for another passphrase, or a file that is not whole; what came before is as it was written
     */
    public static function read(string $file, #[\SensitiveParameter] string $passphrase): \Generator
    {
        $in = @fopen($file, 'rb');
        $salt = $in === false ? '' : (string) stream_get_contents($in, SODIUM_CRYPTO_PWHASH_SALTBYTES);
        if ($in === false || strlen($salt) !== SODIUM_CRYPTO_PWHASH_SALTBYTES) {
            throw new Problem("$file cannot be read, or is no backup of Cellarium itself.");
        }
        try {
            yield from SealedReader::open($in, $file, self::keys($passphrase, $salt))->pieces();
        } catch (StoreFailure) {
            throw new Problem(
                "$file is sealed with another passphrase, or is not whole. Nothing was changed; try the passphrase "
                    .'again, or another copy of the file.',
            );
        }
    }

    private static function keys(#[\SensitiveParameter] string $passphrase, string $salt): ContentKeys
    {
        $key = sodium_crypto_pwhash(
            SODIUM_CRYPTO_SECRETSTREAM_XCHACHA20POLY1305_KEYBYTES,
            $passphrase,
            $salt,
            SODIUM_CRYPTO_PWHASH_OPSLIMIT_MODERATE,
            SODIUM_CRYPTO_PWHASH_MEMLIMIT_MODERATE,
            SODIUM_CRYPTO_PWHASH_ALG_ARGON2ID13,
        );

        return ContentKeys::fromFields(JsonFields::fromJson((string) json_encode([
            'current' => self::KEY,
            'keys' => [self::KEY => sodium_bin2hex($key)],
        ])));
    }
}
