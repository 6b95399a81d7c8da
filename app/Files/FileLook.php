<?php

declare(strict_types=1);

namespace App\Files;

use App\Failure\Problem;
use App\Hosting\Connections;
use App\Text\Amount;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\File\MediaType;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Package\SensitiveContent;
use Cellarium\Core\Path\WireName;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\StreamedResponse;

/**
 * A picture, a document or a sound of a client's server, to be looked at within a page of ours.
 *
 * It comes from elsewhere, so nothing in it runs: the response is a sandbox that loads nothing, its type is never
 * guessed, and what could hold a program is an attachment when it is opened by itself.
 */
final readonly class FileLook
{
    /** What is larger is downloaded, in bytes. */
    public const MOST = 100_000_000;

    public const POLICY = "sandbox; default-src 'none'; style-src 'unsafe-inline'; frame-ancestors 'none'";

    /** It is fetched once while somebody goes from file to file, in seconds. */
    private const KEPT_SECONDS = 300;

    public function __construct(private Connections $connections)
    {
    }

    /** @throws Problem|RemoteFailure before the first byte */
    public function stream(FilePlace $file): StreamedResponse
    {
        $name = $file->at->name();
        $type = MediaType::of($name) ?? throw new Problem("$name is nothing that a browser shows. Download it.");
        $remote = $this->connections->remote($file->account);
        $found = $remote->stat($file->at);
        if ($found?->kind !== EntryKind::File) {
            throw new Problem("$name is no file, or no longer there. Look at the folder again.");
        }
        $size = $found->size ?? 0;
        $size <= self::MOST || throw new Problem(
            "$name has ".Amount::bytes($size).', which is more than is shown here. Download it.',
        );
        $bytes = WholeRead::of($remote, $file->at, $size);
        FileSecrets::mayBeSeen(
            $file->account->id,
            $file->at,
            (string) fread($bytes, SensitiveContent::LOOKED_AT),
        );
        rewind($bytes);

        return new StreamedResponse(static function () use ($bytes): void {
            fpassthru($bytes);
            fclose($bytes);
        }, 200, [
            'Content-Type' => $type->value,
            'Content-Length' => (string) $size,
            'Content-Disposition' => self::named($name, $type),
            'Content-Security-Policy' => self::POLICY,
            'Cross-Origin-Resource-Policy' => 'same-origin',
            'Cache-Control' => 'private, max-age='.self::KEPT_SECONDS,
        ]);
    }

    private static function named(string $name, MediaType $type): string
    {
        $plain = (string) preg_replace('/[^A-Za-z0-9._-]+/', '-', $name);

        return HeaderUtils::makeDisposition(
            $type->isPlainImage() ? HeaderUtils::DISPOSITION_INLINE : HeaderUtils::DISPOSITION_ATTACHMENT,
            str_replace(['/', '\\'], '-', WireName::isHolding($name) ? $plain : $name),
            $plain,
        );
    }
}
