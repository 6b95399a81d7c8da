<?php

declare(strict_types=1);

namespace Cellarium\Core\Manifest;

use Cellarium\Core\Path\RelativePath;

/** Which files are pages, which people go to, and which are what pages need. */
final class PageNames
{
    private const EXTENSIONS = ['html', 'htm', 'xhtml', 'php', 'phtml'];

    /** What servers run, so that what they give is not what lies there. */
    private const RUN = ['php', 'phtml', 'cgi', 'shtml'];

    public static function runs(RelativePath $path): bool
    {
        return in_array($path->extension(), self::RUN, true);
    }

    public static function isPage(RelativePath $path): bool
    {
        return in_array($path->extension(), self::EXTENSIONS, true);
    }
}
