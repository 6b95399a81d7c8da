<?php

declare(strict_types=1);

namespace Cellarium\Standin\World;

use OpenSSLAsymmetricKey;
use OpenSSLCertificate;
use RuntimeException;

/** Makes the authority of the made-up world and one certificate for all its host names, good for ten years. */
final readonly class CertificateMaker
{
    public function __construct(private string $directory)
    {
    }

    /**
     * Writes `ca.pem` (for clients to trust) and `server.pem` (certificate, authority and key, mode 0600).
     *
     * @param  list<string>  $hosts
     */
    public function make(array $hosts): void
    {
        $names = implode(',', array_map(static fn (string $host): string => "DNS:$host", [...$hosts, 'localhost']))
            .',IP:127.0.0.1';
        $configuration = "$this->directory/openssl.cnf";
        $this->write(
            $configuration,
            "[req]\ndistinguished_name=dn\n[dn]\n[ca]\nbasicConstraints=critical,CA:TRUE\n"
                ."keyUsage=critical,keyCertSign,cRLSign\nsubjectKeyIdentifier=hash\n[host]\n"
                ."basicConstraints=CA:FALSE\nsubjectAltName=$names\nextendedKeyUsage=serverAuth\n",
        );
        [$caKey, $ca] = $this->sign('Cellarium stand-in authority', $configuration, 'ca', null, null);
        [$key, $certificate] = $this->sign($hosts[0] ?? 'localhost', $configuration, 'host', $ca, $caKey);
        openssl_x509_export($ca, $caText);
        openssl_x509_export($certificate, $text);
        openssl_pkey_export($key, $keyText);
        assert(is_string($caText) && is_string($text) && is_string($keyText));
        $this->write("$this->directory/ca.pem", $caText);
        $this->write("$this->directory/server.pem", $text.$caText.$keyText);
        chmod("$this->directory/server.pem", 0600);
        unlink($configuration);
    }

    /** @return array{OpenSSLAsymmetricKey, OpenSSLCertificate} */
    private function sign(
        string $name,
        string $configuration,
        string $section,
        ?OpenSSLCertificate $ca,
        ?OpenSSLAsymmetricKey $caKey,
    ): array {
        $key = openssl_pkey_new([
            'private_key_type' => OPENSSL_KEYTYPE_EC,
            'private_key_bits' => 2048,
            'curve_name' => 'prime256v1',
            'config' => $configuration,
        ]);
        $request = $key === false
            ? false
            : openssl_csr_new(['commonName' => $name], $key, [
                'config' => $configuration,
                'digest_alg' => 'sha256',
            ]);
        $certificate = $key === false || ! ($request instanceof \OpenSSLCertificateSigningRequest)
            ? false
            : openssl_csr_sign(
                $request,
                $ca,
                $caKey ?? $key,
                3650,
                ['config' => $configuration, 'x509_extensions' => $section, 'digest_alg' => 'sha256'],
                random_int(1, PHP_INT_MAX),
            );
        if (! ($key instanceof OpenSSLAsymmetricKey) || $certificate === false) {
            throw new RuntimeException('OpenSSL made no certificate: '.openssl_error_string());
        }

        return [$key, $certificate];
    }

    private function write(string $file, string $text): void
    {
        if (file_put_contents($file, $text) !== strlen($text)) {
            throw new RuntimeException("$file could not be written.");
        }
    }
}
