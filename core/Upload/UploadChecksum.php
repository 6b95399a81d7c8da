<?php

declare(strict_types=1);

namespace Cellarium\Core\Upload;

/** The header Upload-Checksum of tus 1.0: the name of an algorithm and the hash in Base64. */
final readonly class UploadChecksum
{
    /** Of hash(), in the order they are offered. */
    public const ALGORITHMS = ['sha256', 'sha1', 'md5'];

    private function __construct(public string $algorithm, private string $hash)
    {
    }

    /** @throws UploadRefused NotUnderstood */
    public static function fromString(string $header): self
    {
        $parts = explode(' ', trim($header));
        $hash = count($parts) === 2 ? base64_decode($parts[1], true) : false;
        $isKnown = $hash !== false
            && in_array($parts[0], self::ALGORITHMS, true)
            && strlen($hash) === strlen(hash($parts[0], '', true));

        return $isKnown
            ? new self($parts[0], (string) $hash)
            : throw UploadRefused::because(UploadRefusal::NotUnderstood);
    }

    public function isOf(string $hash): bool
    {
        return hash_equals($this->hash, $hash);
    }
}
