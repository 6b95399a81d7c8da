<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Manifest\PageNames;
use Cellarium\Core\Web\WebFetcher;

/** A web server that serves the directory for rehearsals. */
final readonly class RehearsalStage
{
    /**
     * @param  string  $url  of the directory, without a slash behind
     * @param  int<1, max>  $most  pages to fetch; of more, a part that is spread over all of them
     */
    public function __construct(private WebFetcher $web, private string $url, private int $most = 200)
    {
    }

    /**
     * @param  list<string>  $startPages  paths that visitors may come in at
     * @return array{int, int} pages that were fetched, and of how many
     *
     * @throws RehearsalFailed where one is not given, or with other bytes
     */
    public function show(Manifest $manifest, array $startPages): array
    {
        $start = $manifest->startPage($startPages);
        $pages = array_values(array_filter(
            $manifest->files(),
            static fn (ManifestEntry $file): bool => PageNames::isPage($file->path) && self::isGiven($file),
        ));
        $chosen = [];
        $each = max(1, count($pages) / $this->most);
        for ($at = 0.0; (int) $at < count($pages); $at += $each) {
            $page = $pages[(int) $at];
            $chosen[$page->path->toString()] = $page;
        }
        $start === null || ! self::isGiven($start) || $chosen[$start->path->toString()] = $start;
        foreach ($chosen as $page) {
            $answer = $this->web->fetch($this->url.'/'.self::encoded($page->path->toString()));
            match (true) {
                $answer->status !== 200 => throw RehearsalFailed::page(
                    $page->path->toString(),
                    $answer->error ?? "status $answer->status",
                ),
                $answer->sha256 !== $page->sha256 => throw RehearsalFailed::page(
                    $page->path->toString(),
                    'other bytes than the backup holds',
                ),
                default => null,
            };
        }

        return [count($chosen), count($pages)];
    }

    /** Whether servers give it as it is. */
    private static function isGiven(ManifestEntry $file): bool
    {
        $isHidden = array_filter(
            $file->path->segments(),
            static fn (string $segment): bool => str_starts_with($segment, '.'),
        ) !== [];

        return ! $isHidden && ! PageNames::runs($file->path);
    }

    private static function encoded(string $path): string
    {
        return implode('/', array_map(rawurlencode(...), explode('/', $path)));
    }
}
