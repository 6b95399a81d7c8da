<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Web\WebAnswer;
use Cellarium\Core\Web\WebFetcher;

/** A directory of this machine as a web server would show it, with index.html for its start page. */
final readonly class ServedDirectory implements WebFetcher
{
    public function __construct(private string $directory)
    {
    }

    public function fetch(string $url, ?string $at = null): WebAnswer
    {
        $path = (string) parse_url($url, PHP_URL_PATH);
        $text = @file_get_contents($this->directory.($path === '/' ? '/index.html' : rawurldecode($path)));

        return new WebAnswer(
            $url,
            $text === false ? 404 : 200,
            hash('sha256', (string) $text),
            strlen((string) $text),
            (string) $text,
        );
    }
}
