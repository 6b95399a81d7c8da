<?php

declare(strict_types=1);

namespace Cellarium\Core\Manifest;

final class StartPages
{
    /** The order most servers look in; a site may have its own. */
    public const USUAL = ['index.html', 'index.htm', 'index.php', 'default.html', 'default.htm'];
}
