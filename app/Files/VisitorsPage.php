<?php

declare(strict_types=1);

namespace App\Files;

use App\Models\ChangeByHand;
use Cellarium\Core\Web\WebAnswer;
use Illuminate\Http\Response;

/**
 * A page as visitors got it right after it was saved, shown within a page of ours.
 *
 * Nothing in it runs; its pictures and styles come from the site itself, as they do for visitors.
 */
final class VisitorsPage
{
    public static function isOne(string $name, WebAnswer $answer): bool
    {
        return preg_match('/\.(?:x?html?|php\d?|phtml|shtml)\z/i', $name) === 1
            && $answer->status === 200
            && preg_match('/<(?:!doctype|html|head|body|h\d|p|div)\b/i', $answer->head) === 1;
    }

    public static function isKept(ChangeByHand $change): bool
    {
        return isset($change->proof['page']);
    }

    public static function response(ChangeByHand $change): Response
    {
        $page = (string) base64_decode((string) ($change->proof['page'] ?? ''), true);
        $address = $change->site?->liveAddress((string) ($change->proof['address'] ?? '')) ?? '';
        $origin = preg_match('~\Ahttps?://[^/\s;,\'"]+~', $address, $match) === 1 ? $match[0] : "'none'";

        return new Response(self::based($page, $address), 200, [
            'Content-Type' => 'text/html',
            'Content-Security-Policy' => "sandbox; default-src 'none'; img-src $origin data:; font-src $origin data:; "
                ."style-src $origin 'unsafe-inline'; frame-ancestors 'self'; base-uri $origin",
        ]);
    }

    /** So that what it loads is found, wherever the page is shown. */
    private static function based(string $page, string $address): string
    {
        return preg_match('/<base\b/i', $page) === 1
            ? $page
            : (string) preg_replace_callback(
                '/<head\b[^>]*>|\A(?!.*<head\b)/is',
                static fn (array $match): string => $match[0].'<base href="'.e($address).'">',
                $page,
                1,
            );
    }
}
