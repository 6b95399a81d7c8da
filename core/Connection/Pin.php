<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Json\JsonFields;

/**
 * The identity of a server that a person has seen and accepted: an SSH host key, or the key in a TLS certificate.
 *
 * A certificate that is renewed with the same key still fits; one with another key does not.
 */
final readonly class Pin
{
    /**
     * @param  string  $fingerprint  SHA-256 as other programs print it: "SHA256:" and base64 for a host key (RFC 4648
     *                               without padding), pairs of hexadecimal digits between colons for a certificate
     * @param  string  $key  base64 of the SHA-256 of the public key as sent (SSH) or of its SubjectPublicKeyInfo
     *     (RFC 7469)
     */
    public function __construct(
        public string $fingerprint,
        public string $key,
    ) {
    }

    /** @param  string  $blob  a public key as it travels (RFC 4253, 6.6) */
    public static function ofHostKey(string $blob): self
    {
        $hash = base64_encode(hash('sha256', $blob, true));

        return new self('SHA256:'.rtrim($hash, '='), $hash);
    }

    /** @throws \UnexpectedValueException when it is not a certificate */
    public static function ofCertificate(\OpenSSLCertificate $certificate): self
    {
        $digest = openssl_x509_fingerprint($certificate, 'sha256');
        $key = openssl_pkey_get_public($certificate);
        $details = $key === false ? false : openssl_pkey_get_details($key);
        $pem = $details === false ? null : $details['key'] ?? null;
        if ($digest === false || ! is_string($pem)) {
            throw new \UnexpectedValueException('the certificate has no readable key');
        }
        $der = base64_decode((string) preg_replace('/-----[^-]+-----|\s/', '', $pem), true);

        return new self(
            strtoupper(implode(':', str_split($digest, 2))),
            base64_encode(hash('sha256', (string) $der, true)),
        );
    }

    public function fits(self $seen): bool
    {
        return hash_equals($this->key, $seen->key);
    }

    /** @return array{fingerprint: string, key: string} */
    public function toArray(): array
    {
        return ['fingerprint' => $this->fingerprint, 'key' => $this->key];
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self($fields->text('fingerprint'), $fields->text('key'));
    }
}
