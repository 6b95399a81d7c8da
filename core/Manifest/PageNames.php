<?php

declare(strict_types=1);

namespace Cellarium\Core\Manifest;

use Cellarium\Core\Path\RelativePath;

/** The kinds of files by their names: pages that people go to, and files that pages need. */
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
