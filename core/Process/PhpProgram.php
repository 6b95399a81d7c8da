<?php

declare(strict_types=1);

namespace Cellarium\Core\Process;

/** The PHP that runs scripts on this machine. */
final class PhpProgram
{
    /** Within a web server the running program is another one, which runs no scripts. */
    public static function path(): string
    {
        return in_array(PHP_SAPI, ['cli', 'cli-server'], true) ? PHP_BINARY : PHP_BINDIR.'/php';
    }
}
