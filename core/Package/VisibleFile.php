<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\StartPages;
use Cellarium\Core\Package\Finding\FindingCode;
use Cellarium\Core\Package\Finding\PackageFinding;

/** One address of a package as it would land, and what it would give. */
final readonly class VisibleFile
{
    private const EXPOSES = [
        FindingCode::SecretKey,
        FindingCode::SecretSetting,
        FindingCode::SecretToken,
        FindingCode::SecretDump,
        FindingCode::LeftoverCopy,
        FindingCode::LeftoverDevelopment,
    ];

    /**
     * @param  string  $address  from the root of the site, percent-encoded (RFC 3986)
     * @param  string|null  $file  that answers there
     * @param  bool  $hasPages  whether a directory without a start page holds pages, so that visitors may come there
     */
    private function __construct(
        public string $address,
        public ServedAs $as,
        public ?string $file,
        public bool $hasPages = false,
    ) {
    }

    /**
     * @param  Manifest  $manifest  from the root of the site
     * @param  list<string>  $exposed  paths that should not be fetched
     * @param  list<string>  $names  start pages in the order of the site
     * @return list<self> each directory that holds files, then what should not be fetched
     */
    public static function all(Manifest $manifest, array $exposed, array $names = StartPages::USUAL): array
    {
        $served = [];
        foreach (self::directories($manifest) as $directory => $hasPages) {
            $directory = (string) $directory;
            $winner = self::candidates($manifest, $directory, $names)[0] ?? null;
            $served[] = new self(
                $directory === '' ? '/' : '/'.self::encoded($directory).'/',
                $winner === null ? ServedAs::Listing : ServedAs::Page,
                $winner,
                $hasPages,
            );
        }
        foreach (array_unique($exposed) as $path) {
            $served[] = new self('/'.self::encoded($path), ServedAs::Exposed, $path);
        }

        return $served;
    }

    /**
     * @param  list<PackageFinding>  $findings
     * @param  string  $folder  that is the root of the site, "" is the top
     * @return list<string> paths from the root of the site that should not be fetched
     */
    public static function exposedBy(array $findings, string $folder): array
    {
        $paths = [];
        foreach ($findings as $finding) {
            $path = (string) $finding->path;
            if ($path !== '' && in_array($finding->code, self::EXPOSES, true)) {
                $paths[] = $folder === '' ? $path : substr($path, strlen($folder) + 1);
            }
        }

        return $paths;
    }

    /**
     * Which start pages stand in each directory that has one, and which of them is shown.
     *
     * @param  list<string>  $names  in the order of the site
     * @return list<array{directory: string, candidates: list<string>, winner: string}>
     */
    public static function startPages(Manifest $manifest, array $names = StartPages::USUAL): array
    {
        $found = [];
        foreach (array_keys(self::directories($manifest)) as $directory) {
            $directory = (string) $directory;
            $candidates = self::candidates($manifest, $directory, $names);
            $candidates === [] || $found[] = [
                'directory' => $directory,
                'candidates' => $candidates,
                'winner' => $candidates[0],
            ];
        }

        return $found;
    }

    /**
     * The same, where the root lies at an address of the site.
     *
     * @param  string  $prefix  percent-encoded, "/blog"
     */
    public function below(string $prefix): self
    {
        return new self($prefix.$this->address, $this->as, $this->file, $this->hasPages);
    }

    /** @return array{address: string, as: string, file: string|null} */
    public function toArray(): array
    {
        return ['address' => $this->address, 'as' => $this->as->value, 'file' => $this->file];
    }

    /** @return array<string, bool> that hold files themselves, and the root; whether there are pages among them */
    private static function directories(Manifest $manifest): array
    {
        $found = ['' => false];
        foreach ($manifest->files() as $file) {
            $isPage = preg_match('/\.(?:x?html?|shtml|php)\z/i', $file->path->name()) === 1;
            $directory = (string) $file->path->parent();
            $found[$directory] = ($found[$directory] ?? false) || $isPage;
        }
        ksort($found, SORT_STRING);

        return $found;
    }

    /**
     * @param  list<string>  $names
     * @return list<string> paths
     */
    private static function candidates(Manifest $manifest, string $directory, array $names): array
    {
        $paths = array_map(static fn (string $name): string => ltrim("$directory/$name", '/'), $names);

        return array_values(array_filter(
            $paths,
            static fn (string $path): bool => $manifest->get($path)?->isFile() ?? false,
        ));
    }

    private static function encoded(string $path): string
    {
        return implode('/', array_map(rawurlencode(...), explode('/', $path)));
    }
}
