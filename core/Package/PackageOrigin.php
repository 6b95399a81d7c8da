<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

/** Facts about a package besides the files it would put into place. */
final readonly class PackageOrigin
{
    /**
     * @param  string|null  $wrapper  the folder that was lifted
     * @param  list<string>  $left  leftovers that were not taken in
     * @param  array<string, int>  $modes  twelve bits, by path as it would land
     * @param  bool  $isSaid  whether name and version were given here, so that its own files do not decide
     */
    public function __construct(
        public string $name,
        public ?string $version,
        public ?string $wrapper = null,
        public array $left = [],
        public array $modes = [],
        public bool $isSaid = false,
    ) {
    }

    /** From what people call the archive: "pilgrim-stones-1.0.zip", "hostel_v2.3.1-rc1.tar.gz". */
    public static function named(string $fileName): self
    {
        $stem = preg_replace('/\.(?:zip|tar|tar\.gz|tgz|tar\.xz|txz)\z/i', '', basename($fileName)) ?? $fileName;

        return preg_match('/\A(.+?)[-_ ]v?(\d+(?:\.\d+)*(?:[-.]?(?:rc|beta|alpha)\.?\d*)?)\z/i', $stem, $match) === 1
            ? new self($match[1], $match[2])
            : new self($stem, null);
    }

    /**
     * @param  list<string>  $left
     * @param  array<string, int>  $modes
     */
    public function opened(?string $wrapper, array $left, array $modes): self
    {
        return new self($this->name, $this->version, $wrapper, $left, $modes);
    }
}
