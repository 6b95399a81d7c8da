<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Backup\ListingDoubted;
use Cellarium\Core\Words\Bytes;
use RuntimeException;

/** A run that ended before anything on the server was touched. */
final class RunRefused extends RuntimeException
{
    /** @param  string|null  $why  half a sentence, for what is asked again another time */
    private function __construct(
        public readonly RunRefusal $reason,
        string $sentence,
        ?\Throwable $previous = null,
        public readonly ?string $why = null,
    ) {
        parent::__construct($sentence, 0, $previous);
    }

    public static function changedSincePlanned(): self
    {
        return new self(
            RunRefusal::ChangedSincePlanned,
            'The server has changed since the plan was made. Make the plan again and look at what is different.',
        );
    }

    /** @param  non-empty-list<string>  $paths */
    public static function questions(array $paths): self
    {
        return new self(
            RunRefusal::Questions,
            sprintf(
                '%s changed on the server since the last deployment. Say what is to stay, then start again.',
                count($paths) > 3
                    ? number_format(count($paths)).' files'
                    : implode(', ', $paths),
            ),
        );
    }

    /** @param  int  $beside  bytes that must be free beside what is sent */
    public static function noRoom(int $needed, int $beside, int $room): self
    {
        return new self(
            RunRefusal::NoRoom,
            sprintf(
                'The upload needs %s%s and the account has %s left. Make room in the account or ask for more space.',
                Bytes::words($needed),
                $beside === 0 ? '' : ', and '.Bytes::words($beside).' beside it,',
                Bytes::words($room),
            ),
        );
    }

    /** @param  string  $lack  a sentence without its end */
    public static function lacks(string $lack): self
    {
        return new self(
            RunRefusal::Lacks,
            ucfirst($lack).'. Choose another PHP in the panel of the host, or ask for it; then make the plan again.',
        );
    }

    public static function collapsed(ListingDoubted $doubted): self
    {
        return new self(RunRefusal::Collapsed, $doubted->getMessage());
    }

    public static function placeInUse(): self
    {
        return new self(
            RunRefusal::PlaceInUse,
            'Another run is at work in this directory, perhaps through another account. Wait for its end, then make '
                .'the plan again.',
        );
    }

    /** @param  string  $why  half a sentence */
    public static function wayBarred(string $why): self
    {
        return new self(
            RunRefusal::WayBarred,
            "The document root cannot be swapped for another directory: $why. Replace it file by file.",
            why: $why,
        );
    }

    public static function notPossible(\Throwable $cause): self
    {
        return new self(RunRefusal::NotPossible, $cause->getMessage(), $cause);
    }
}
