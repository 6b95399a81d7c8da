<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

use Aws\S3\S3Client;
use League\Flysystem\AwsS3V3\AwsS3V3Adapter;
use League\Flysystem\Filesystem;
use Psr\Http\Message\ResponseInterface;

/** A store that speaks S3, as files below a prefix; one that does not answer is told as away in seconds. */
final class S3Filesystem
{
    /** Without an answer for so long, the store is away. */
    public const SILENT_SECONDS = 30;

    private const CONNECT_SECONDS = 5;

    private const TRIES = 2;

    public static function connect(S3Settings $settings, int $silentSeconds = self::SILENT_SECONDS): Filesystem
    {
        $client = new S3Client([
            'version' => '2006-03-01',
            'region' => $settings->region,
            'endpoint' => $settings->endpoint,
            'use_path_style_endpoint' => true,
            'credentials' => ['key' => $settings->key, 'secret' => $settings->secret->reveal()],
            'retries' => self::TRIES,
            'http' => [
                // What is signed for one address goes to no other, and being led there is no answer.
                'allow_redirects' => false,
                'on_headers' => static fn (ResponseInterface $answer) => intdiv($answer->getStatusCode(), 100) === 3
                    ? throw new \RuntimeException("it leads to {$answer->getHeaderLine('Location')}")
                    : null,
                'connect_timeout' => self::CONNECT_SECONDS,
                'read_timeout' => $silentSeconds,
                // What is read as a stream goes another way, on which the system's own patience would count.
                'stream_context' => ['http' => ['timeout' => $silentSeconds]],
                'curl' => [CURLOPT_LOW_SPEED_LIMIT => 1, CURLOPT_LOW_SPEED_TIME => $silentSeconds],
            ],
        ]);

        return new Filesystem(new AwsS3V3Adapter($client, $settings->bucket, $settings->prefix, streamReads: true));
    }
}
