<?php

declare(strict_types=1);

namespace Cellarium\Core\Reach;

use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Words\Count;

/** The reach of an FTP user jailed in a directory, over the sites of its account. */
final readonly class Reach
{
    /** @param  list<SiteReach>  $sites every site of the account */
    private function __construct(
        public RemotePath $directory,
        public array $sites,
    ) {
    }

    /** @param  list<SitePlaces>  $sites  of the account */
    public static function fromDirectory(RemotePath $directory, array $sites): self
    {
        return new self(
            $directory,
            array_map(static fn (SitePlaces $site): SiteReach => SiteReach::fromDirectory($directory, $site), $sites),
        );
    }

    /** @return list<SiteReach> sites it can touch at all */
    public function touched(): array
    {
        return array_values(
            array_filter($this->sites, static fn (SiteReach $site): bool => $site->extent !== Extent::None),
        );
    }

    /** @return list<SiteReach> */
    public function with(Extent $extent): array
    {
        return array_values(array_filter($this->sites, static fn (SiteReach $site): bool => $site->extent === $extent));
    }

    /** @return list<string> whose sites it can touch */
    public function clients(): array
    {
        return array_values(
            array_unique(array_map(static fn (SiteReach $site): string => $site->client, $this->touched())),
        );
    }

    /** More than one site is more than one job needs. */
    public function isTooWide(): bool
    {
        return count($this->touched()) > 1;
    }

    public function isWholeAccount(): bool
    {
        return $this->directory->depth() === 0;
    }

    public function sentence(): string
    {
        $touched = $this->touched();
        $all = count($this->sites);
        $one = $touched[0] ?? null;

        return match (true) {
            $one === null => 'no site, only files beside them',
            count($touched) > 1 => count($touched)." of $all sites",
            $one->extent === Extent::Part => Count::choose($all, 'the one site', "1 of $all sites")
                .', only the part under '
                .implode(' and ', $one->parts),
            $all === 1 => 'the one site of this account',
            default => "1 of $all sites, $one->domain",
        };
    }
}
