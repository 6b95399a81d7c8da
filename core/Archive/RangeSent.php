<?php

declare(strict_types=1);

namespace Cellarium\Core\Archive;

use RuntimeException;

/** All of a range was handed on; what follows is not needed. */
final class RangeSent extends RuntimeException
{
}
