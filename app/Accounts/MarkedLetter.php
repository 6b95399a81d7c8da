<?php

declare(strict_types=1);

namespace App\Accounts;

use Cellarium\Core\Letter\Fact;
use Cellarium\Core\Letter\LetterAccount;
use Cellarium\Core\Letter\LetterText;
use Illuminate\Support\HtmlString;

/** A letter cut into pieces, some of them marked with the fact that was read from them. */
final class MarkedLetter
{
    public static function fromPasted(string $pasted, ?LetterAccount $account): HtmlString
    {
        $text = LetterText::fromPasted($pasted);
        $found = $account === null ? [] : array_values($account->found);
        usort($found, static fn ($a, $b): int => $a->from <=> $b->from);
        $html = '';
        $at = 0;
        foreach ($found as $one) {
            if ($one->from < $at || ($one->fact === Fact::Protocol && $one->length > 60)) {
                continue; // Two facts of one piece: an address that says it all is marked once.
            }
            $html
                .= e(substr($text, $at, $one->from - $at))
                .'<mark>'
                .e(substr($text, $one->from, $one->length))
                .'<small>'
                .e($one->fact->value)
                .'</small></mark>';
            $at = $one->from + $one->length;
        }

        return new HtmlString($html.e(substr($text, $at)));
    }
}
