<?php

declare(strict_types=1);

namespace Cellarium\Core\DocumentRoot;

use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Connection\RemoteReader;
use Cellarium\Core\Connection\RemoteText;
use Cellarium\Core\Path\RemotePath;

/** Tells a host's placeholder from a site by what such pages say. */
final readonly class PlaceholderPage
{
    public const USUAL = [
        'has been set up by',
        'has not put a site here yet',
        'default web page',
        'placeholder page',
        'domain is parked',
        'future home of',
        'space is ready for your site',
    ];

    /** A larger page is a site's own. */
    private const MOST_BYTES = 32768;

    /** @param  list<string>  $phrases any one of them marks a placeholder */
    public function __construct(private array $phrases = self::USUAL)
    {
    }

    /**
     * @param  int|null  $size  bytes as the listing has them, null where it does not; a server that says too little is
     *     not read further than a placeholder goes
     *
     * @throws RemoteFailure
     */
    public function isAt(RemoteReader $remote, RemotePath $page, ?int $size): bool
    {
        if ($size !== null && $size > self::MOST_BYTES) {
            return false;
        }
        $html = RemoteText::read($remote, $page, self::MOST_BYTES);

        return $html !== null && $this->recognises($html);
    }

    public function recognises(string $html): bool
    {
        $text = mb_strtolower(strip_tags($html));
        foreach ($this->phrases as $phrase) {
            if (str_contains($text, mb_strtolower($phrase))) {
                return true;
            }
        }

        return false;
    }
}
