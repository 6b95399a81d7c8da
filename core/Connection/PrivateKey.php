<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Credential\Secret;
use phpseclib3\Crypt\Common\AsymmetricKey;
use phpseclib3\Crypt\EC;
use phpseclib3\Crypt\PublicKeyLoader;
use phpseclib3\Crypt\RSA;
use UnexpectedValueException;

/**
 * A person's private key, its passphrase taken off once: the work that a passphrase costs is meant to be seconds, too
 * much for each connection. What is kept of it is kept encrypted like any other secret.
 */
final readonly class PrivateKey
{
    private const FEWEST_RSA_BITS = 2048;

    /**
     * @param  Secret  $open  in OpenSSH's form, without passphrase
     * @param  string  $kind  "Ed25519" or "RSA, 3072 bit"
     * @param  string  $fingerprint  of its public half, as ssh-keygen prints it
     */
    private function __construct(
        public Secret $open,
        public string $kind,
        public string $fingerprint,
    ) {
    }

    /**
     * @param  string  $text  OpenSSH, PKCS #1, PKCS #8 or PuTTY
     *
     * @throws UnexpectedValueException with a sentence for the person; the key is not in it
     */
    public static function read(#[\SensitiveParameter] string $text, Secret $passphrase): self
    {
        $text = trim(str_replace("\r\n", "\n", $text))."\n";
        if (preg_match('/\A(ssh-|ecdsa-|-----BEGIN PUBLIC)/', $text) === 1) {
            throw new UnexpectedValueException('This is the public half; the private key is needed.');
        }
        try {
            $key = $passphrase->reveal() === ''
                ? PublicKeyLoader::load($text)
                : PublicKeyLoader::load($text, $passphrase->reveal());
        } catch (\Exception) {
            $isKey = str_contains($text, 'PRIVATE KEY-----') || str_starts_with($text, 'PuTTY-User-Key-File');
            throw new UnexpectedValueException(
                match (true) {
                    ! $isKey => 'This is not a private key. Paste the whole file, from the line that '
                        .'begins it to the line that ends it.',
                    $passphrase->reveal() === '' => 'This key is locked: it needs its passphrase.',
                    default => 'The passphrase does not open this key.',
                },
            );
        }

        return self::of($key);
    }

    private static function of(AsymmetricKey $key): self
    {
        $kind = match (true) {
            $key instanceof RSA\PrivateKey && $key->getLength() >= self::FEWEST_RSA_BITS => 'RSA, '
                .$key->getLength()
                .' bit',
            $key instanceof RSA\PrivateKey => throw new UnexpectedValueException(
                'This RSA key has '.$key->getLength().' bit; make one with '.self::FEWEST_RSA_BITS.' or more.',
            ),
            $key instanceof EC\PrivateKey && $key->getCurve() === 'Ed25519' => 'Ed25519',
            default => throw new UnexpectedValueException('This kind of key is not known here. Use Ed25519 or RSA.'),
        };
        $public = $key->getPublicKey();
        $line = $public instanceof AsymmetricKey ? $public->toString('OpenSSH') : '';
        $blob = base64_decode(explode(' ', is_string($line) ? $line : '')[1] ?? '', true);
        // A key that was opened with a passphrase would lock itself again with it.
        $bare = $key->withPassword();
        $open = $bare instanceof AsymmetricKey ? $bare->toString('OpenSSH') : '';

        return new self(new Secret(is_string($open) ? $open : ''), $kind, Pin::ofHostKey((string) $blob)->fingerprint);
    }
}
