<?php

declare(strict_types=1);

namespace Cellarium\Core\Upload;

use RuntimeException;

/** A piece was not taken; all that came before it is there as it was. */
final class UploadRefused extends RuntimeException
{
    private function __construct(public readonly UploadRefusal $reason, string $message)
    {
        parent::__construct($message);
    }

    public static function because(UploadRefusal $reason): self
    {
        return new self($reason, match ($reason) {
            UploadRefusal::OtherOffset => 'This piece does not begin where the last one ended. Ask where that is.',
            UploadRefusal::TooMuch => 'More arrived than was announced.',
            UploadRefusal::NotUnderstood => 'The headers of this piece were not understood.',
            UploadRefusal::Busy => 'Another piece of this upload is being taken. Send it again in a moment.',
            UploadRefusal::ChecksumMismatch => 'What arrived is not what was sent. Send this piece again.',
        });
    }
}
