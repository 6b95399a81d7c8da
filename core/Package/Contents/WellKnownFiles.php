<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Contents;

/** Files that browsers, search engines and servers ask for by name; nothing needs to refer to them. */
final class WellKnownFiles
{
    private const NAMES = '~(?:\A|/)(?:favicon\.ico|robots\.txt|humans\.txt|ads\.txt|security\.txt|sitemap[^/]*'
        .'|apple-touch-icon[^/]*|browserconfig\.xml|crossdomain\.xml|[45]\d\d\.html?|CNAME|_redirects|_headers'
        .'|web\.config|\.ht\w+|\.user\.ini|php\.ini)\z|\A\.well-known/~i';

    public static function isOne(string $path): bool
    {
        return preg_match(self::NAMES, $path) === 1;
    }
}
