<?php

declare(strict_types=1);

namespace Cellarium\Core\Upload;

/** Why a piece of an upload was not taken; the values are the status codes that tus 1.0 gives them. */
enum UploadRefusal: int
{
    /** It does not begin where the last one ended. */
    case OtherOffset = 409;

    /** It would make more of it than was announced. */
    case TooMuch = 413;

    case NotUnderstood = 400;

    /** Another piece is being taken right now. */
    case Busy = 423;

    /** What arrived is not what was sent. */
    case ChecksumMismatch = 460;
}
