<?php

declare(strict_types=1);

namespace Cellarium\Core\Reach;

use Cellarium\Core\Path\RemotePath;

/** The reach of an FTP user, said before it exists. */
final readonly class ReachPreview
{
    /**
     * @param  bool|null  $exists  null where nobody has looked
     * @param  list<string>  $othersSites  domains it would reach that belong to another client than the account
     * @param  array<string, list<string>>  $secrets  names of files with passwords or keys, by directory
     * @param  array<string, list<string>>  $backups  names of copies and dumps, by directory
     * @param  int  $unseen  directories within that nobody has looked into
     * @param  array<string, string|null>  $links  links within, by path, and where they point
     * @param  list<Reach>  $narrower
     */
    private function __construct(
        public Reach $reach,
        public ?bool $exists,
        public bool $empty,
        public array $othersSites,
        public array $secrets,
        public array $backups,
        public int $unseen,
        public array $links,
        public array $narrower,
    ) {
    }

    /**
     * @param  string  $client  whose account it is
     * @param  list<SitePlaces>  $sites
     * @param  list<RemotePath>  $named  saved destinations
     */
    public static function fromDirectory(
        RemotePath $directory,
        string $client,
        array $sites,
        DirectoryTree $tree,
        array $named = [],
    ): self {
        $reach = Reach::fromDirectory($directory, $sites);
        $secrets = $backups = $links = [];
        $unseen = 0;
        foreach ($tree->within($directory) as $path => $seen) {
            $unseen += $seen->looked ? 0 : 1;
            $secrets += $seen->secrets === [] ? [] : [$path => $seen->secrets];
            $backups += $seen->backups === [] ? [] : [$path => $seen->backups];
            foreach ($seen->links as $name => $target) {
                $links[rtrim($path, '/')."/$name"] = $target;
            }
        }
        $others = array_map(
            static fn (SiteReach $site): string => $site->domain,
            array_filter($reach->touched(), static fn (SiteReach $site): bool => $site->client !== $client),
        );
        $here = $tree->at($directory);

        return new self(
            $reach,
            match (true) {
                $tree->knows($directory) => true,
                $tree->lacks($directory) => false,
                default => null,
            },
            $here->looked && $here->files === 0 && $here->links === [] && $tree->inside($directory) === [],
            array_values($others),
            $secrets,
            $backups,
            $unseen,
            $links,
            NarrowerDirectories::than($directory, $sites, $tree, $named),
        );
    }
}
