<?php

declare(strict_types=1);

namespace App\Text;

use Illuminate\Support\HtmlString;

/** Domains, paths, logins and addresses, which a line may break after a slash, a dot or an @ and nowhere else. */
final class Breakable
{
    public static function html(string $text): HtmlString
    {
        $parts = preg_split('~(?<=[/.@])(?=[^/.@])~', $text) ?: [$text];

        return new HtmlString(implode('<wbr>', array_map(Shown::escaped(...), $parts)));
    }
}
