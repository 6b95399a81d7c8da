<?php

declare(strict_types=1);

namespace App\Files;

use App\Failure\Problem;
use App\Storage\Spool;
use Cellarium\Core\File\MediaType;
use Cellarium\Core\Package\SensitiveContent;
use Cellarium\Core\Path\WireName;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Symfony\Component\HttpFoundation\HeaderUtils;

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
    public const KEPT_SECONDS = 300;

    public function __construct(private Spool $spool)
    {
    }

    public static function isShown(FilePlace $file): bool
    {
        return MediaType::fromName($file->at->name()) !== null;
    }

    /** @throws Problem where no browser shows it */
    public static function type(FilePlace $file): MediaType
    {
        $name = $file->at->name();

        return MediaType::fromName($name) ?? throw new Problem("$name is nothing that a browser shows. Download it.");
    }

    /**
     * @param  string  $spooled  name of what was fetched
     *
     * @throws Problem where it is for others only, or took so long that it is gone again
     */
    public function response(FilePlace $file, string $spooled): BinaryFileResponse
    {
        $type = self::type($file);
        $local = $this->spool->file($spooled) ?? throw new Problem('It took too long. Look at the folder again.');
        FileSecrets::mayBeSeen(
            $file->account->id,
            $file->at,
            (string) file_get_contents($local, length: SensitiveContent::LOOKED_AT),
        );

        return (new BinaryFileResponse($local, 200, [
            'Content-Type' => $type->value,
            'Content-Disposition' => self::named($file->at->name(), $type),
            'Content-Security-Policy' => self::POLICY,
            'Cross-Origin-Resource-Policy' => 'same-origin',
        ]))->setPrivate()->setMaxAge(self::KEPT_SECONDS);
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
