<?php

declare(strict_types=1);

namespace Cellarium\Core\Letter;

use Cellarium\Core\Account\Protocol;

/** Where the value behind a label begins and ends, and what words say about the protocol. */
final class LabelledValue
{
    /**
     * @param  string  $text  what follows the label, to the next one or the end of the line
     * @param  bool  $sentence  whether it stands in a sentence
     * @return array{string, int, string} the value, where it begins in the text, and what stands behind it
     */
    public static function of(string $text, Fact $fact, bool $sentence): array
    {
        $lead = strspn($text, " \t:=|>");
        $body = substr($text, $lead);
        if (preg_match('/\A(?:\.{2,}|[-–—]{1,2}>?|[→⇒»])[ \t]+/u', $body, $match) === 1) {
            $lead += strlen($match[0]);
            $body = substr($body, strlen($match[0]));
        }
        // A no-break blank at an edge is a blank; a value in quotes may hold some.
        if (preg_match('/\A(["“„«‘\'`])(.+?)["”“»’\'`](?=[\s.,;)]|\z)/u', $body, $match) === 1) {
            return [$match[0], $lead, substr($body, strlen($match[0]))];
        }
        $end = preg_match('/[\t|]|[ \x{00A0}]{2,}|\z/u', $body, $match, PREG_OFFSET_CAPTURE) === 1 ? $match[0][1] : strlen($body);
        $cell = substr($body, 0, $end);
        $rest = substr($body, $end);
        if ($fact !== Fact::Protocol && preg_match('/\A([^\x{00A0}\s]+)[\s\x{00A0}]/u', $cell, $match) === 1) {
            $rest = substr($cell, strlen($match[1])).$rest;
            $cell = $match[1];
        }
        if ($sentence && preg_match('/\A(.+?)[.,;]\z/', $cell, $match) === 1) {
            return [$match[1], $lead, substr($cell, strlen($match[1])).$rest];
        }

        return [rtrim($cell), $lead, $rest];
    }

    /** @param  string  $words in small letters */
    public static function protocolIn(string $words): ?Protocol
    {
        return match (true) {
            preg_match('/\bsftp\b|\bssh\b/', $words) === 1 => Protocol::Sftp,
            str_contains($words, 'implicit') => Protocol::FtpsImplicit,
            preg_match('/\bftps\b|\bftpes\b|explicit|\bftp\W+(?:over |with |via |\()?\W*(?:tls|ssl)|\b(?:tls|ssl)\b/', $words) === 1 => Protocol::FtpsExplicit,
            preg_match('/\bftp\b/', $words) === 1 => Protocol::Ftp,
            default => null,
        };
    }
}
