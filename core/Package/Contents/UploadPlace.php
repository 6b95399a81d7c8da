<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Contents;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Reference\Documents;

/** The server that files are uploaded to by hand, as it was seen: paths from where the site begins. */
final readonly class UploadPlace
{
    /**
     * @param  Manifest  $server  hashes need not be known
     * @param  string  $served  the directory whose files visitors get; "" is the top
     */
    public function __construct(public Manifest $server, public string $served = '')
    {
    }

    /** Whether visitors get it; what lies above the document root is fetched by nobody. */
    public function isServed(RelativePath $path): bool
    {
        return $this->served === '' || str_starts_with("$path/", "$this->served/");
    }

    /** What lies where visitors come in, as if that were the top. */
    public function inside(Manifest $files): Manifest
    {
        return $this->served === '' ? $files : $files->inside($this->served);
    }

    /** Whether what comes is all there is: then it is a site, and not a part of one. */
    public function isWhole(Manifest $brought): bool
    {
        $stays = static fn (ManifestEntry $file): bool => Documents::isOne("$file->path", $file->size)
            && $brought->get($file->path) === null;
        $server = $this->served === '' ? $this->server : $this->server->under($this->served);

        return array_filter($server->files(), $stays) === [];
    }

    /** Whether a program answers there, so that scripts are at home. */
    public function hasProgram(Manifest $brought): bool
    {
        $start = ltrim("$this->served/index.php", '/');

        return ($brought->get($start) ?? $this->server->get($start)) !== null;
    }
}
