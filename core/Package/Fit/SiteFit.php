<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Fit;

/** The fit of a package to a site, by what both have in common. */
final readonly class SiteFit
{
    /** Points below which a likeness says nothing. */
    private const SAYS_SOMETHING = 4;

    /**
     * @param  int  $own  how often the package names a domain of the site as its own
     * @param  int  $linked  how often it links there
     * @param  int  $titles  of its pages that what is live there has too
     * @param  int  $files  of its files that what is live there has too, those that few others have
     * @param  bool  $isOfTheSameName  whether a package of this name was deployed there before
     */
    public function __construct(
        public int $own = 0,
        public int $linked = 0,
        public int $titles = 0,
        public int $files = 0,
        public bool $isOfTheSameName = false,
    ) {
    }

    /** A page's title or a name as its own says most; links are put on other people's sites too. */
    public function points(): int
    {
        return 2 * min(10, $this->own)
            + min(4, intdiv($this->linked, 10))
            + 3 * min(10, $this->titles)
            + min(30, $this->files)
            + ($this->isOfTheSameName ? 10 : 0);
    }

    public function saysSomething(): bool
    {
        return $this->points() >= self::SAYS_SOMETHING;
    }

    /** Whether it fits so much better that the other one is likely a mistake. */
    public function isClearlyBetterThan(self $other): bool
    {
        return $this->saysSomething() && $this->points() > 2 * $other->points();
    }

    /** @return string "3 titles and 12 files in it are of that site"; "" where there is nothing */
    public function inWords(): string
    {
        $parts = array_values(array_filter([
            self::count($this->titles, 'title'),
            self::count($this->files, 'file'),
            self::count($this->own, 'address', 'addresses'),
            $this->own === 0 ? self::count($this->linked, 'link') : '',
        ]));
        $isOne = count($parts) === 1 && str_starts_with($parts[0], '1 ');
        $last = array_pop($parts);
        $alike = match (true) {
            $last === null => '',
            default => implode(', ', $parts).($parts === [] ? '' : ' and ').$last.' in it '
                .($isOne ? 'is' : 'are').' of that site',
        };
        $name = $this->isOfTheSameName ? 'a version of it was deployed there' : '';

        return implode(', and ', array_filter([$alike, $name]));
    }

    private static function count(int $count, string $one, ?string $many = null): string
    {
        return match ($count) {
            0 => '',
            1 => "1 $one",
            default => number_format($count).' '.($many ?? "{$one}s"),
        };
    }
}
