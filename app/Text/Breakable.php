<?php

declare(strict_types=1);

namespace App\Text;

use Illuminate\Support\HtmlString;

/** Domains, paths, logins and addresses, which a line may break after a slash, a dot or an @ and nowhere else. */
final class Breakable
{
    /** What has no blank and is longer than a word; a stop or a colon behind it belongs to the sentence. */
    private const NAME = '~([^\s,;“”‘’()]{20,}(?<![.:]))~u';

    public static function html(string $name): HtmlString
    {
        $parts = preg_split('~(?<=[/\\\\.@:])(?=[^/\\\\.@:])~', $name) ?: [$name];

        return new HtmlString(implode('<wbr>', array_map(DisplayText::escaped(...), $parts)));
    }

    /** A hash in groups of sixteen digits. */
    public static function hash(string $hexadecimal): HtmlString
    {
        return new HtmlString(implode('<wbr>', array_map(DisplayText::escaped(...), str_split($hexadecimal, 16))));
    }

    /** A sentence, in which names of that kind may stand anywhere. */
    public static function sentence(?string $sentence): HtmlString
    {
        $parts = preg_split(self::NAME, mb_scrub($sentence ?? ''), flags: PREG_SPLIT_DELIM_CAPTURE) ?: [];
        $html = '';
        foreach ($parts as $at => $part) {
            $html .= $at % 2 === 0
                ? DisplayText::escaped($part)
                : '<span class="breakable">'.self::html($part).'</span>';
        }

        return new HtmlString($html);
    }
}
