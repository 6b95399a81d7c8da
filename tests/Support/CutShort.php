<?php

declare(strict_types=1);

namespace Tests\Support;

use RuntimeException;

/** Half of a file is moved, and the server says that all of it was; what moves nothing is done as ever. */
final class CutShort extends RuntimeException
{
}
