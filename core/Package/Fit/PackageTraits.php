<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Fit;

use Cellarium\Core\Json\JsonFields;

/** Marks in a package that tell whose it is. */
final readonly class PackageTraits
{
    /**
     * @param  array<string, int>  $own  how often it names a host as its own: canonical addresses, its site map, mail
     * @param  array<string, int>  $linked  how often it links to a host
     * @param  list<string>  $titles  of its pages, those that say something
     */
    public function __construct(
        public array $own,
        public array $linked,
        public array $titles,
    ) {
    }

    /** @return array{own: array<string, int>, linked: array<string, int>, titles: list<string>} */
    public function toArray(): array
    {
        return ['own' => $this->own, 'linked' => $this->linked, 'titles' => $this->titles];
    }

    public static function fromFields(JsonFields $fields): self
    {
        $counts = static function (string $key) use ($fields): array {
            $of = $fields->fields($key);

            return array_combine($of->keys(), array_map($of->number(...), $of->keys()));
        };

        return new self($counts('own'), $counts('linked'), $fields->texts('titles'));
    }
}
