<?php

declare(strict_types=1);

namespace Cellarium\Core\Reach;

use Cellarium\Core\Path\RemotePath;

/** What an FTP user jailed in a directory can touch, over the sites of its account. */
final readonly class Reach
{
    /** @param  list<SiteReach>  $sites every site of the account */
    private function __construct(
        public RemotePath $directory,
        public array $sites,
    ) {
    }

    /** @param  array<string, RemotePath>  $documentRoots by domain */
    public static function of(RemotePath $directory, array $documentRoots): self
    {
        $sites = [];
        foreach ($documentRoots as $domain => $root) {
            $sites[] = SiteReach::of($directory, $domain, $root);
        }

        return new self($directory, $sites);
    }

    /** @return list<SiteReach> sites it can touch at all */
    public function touched(): array
    {
        return array_values(array_filter($this->sites, static fn (SiteReach $site): bool => $site->extent !== Extent::None));
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

        return match (true) {
            $touched === [] => 'no site, only files beside them',
            count($touched) > 1 => count($touched)." of $all sites",
            $touched[0]->extent === Extent::Part => "1 of $all sites, only the part under /{$touched[0]->part}",
            $all === 1 => 'the one site of this account',
            default => "1 of $all sites, {$touched[0]->domain}",
        };
    }
}
