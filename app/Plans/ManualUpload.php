<?php

declare(strict_types=1);

namespace App\Plans;

use App\Failure\Problem;
use App\Models\Deployment;
use App\Models\Person;
use App\Models\Site;
use App\Storage\RunFiles;
use Cellarium\Core\File\WorkingCopy;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Package\PackageIntake;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\FilePieces;
use Cellarium\Core\Storage\ScratchFile;

/**
 * Takes files that somebody brings to a site by hand: one, many, whole folders, or what was downloaded to be worked on.
 * What comes of it is a plan like any other.
 */
final readonly class ManualUpload
{
    /** What a working copy says of a hundred thousand files, in bytes. */
    private const LARGEST_COPY = 40_000_000;

    public function __construct(
        private PackageIntake $intake,
        private ContentStore $store,
        private Plans $plans,
        private RunFiles $runs,
    ) {
    }

    /**
     * @param  RemotePath  $into  the directory that the files are for
     * @param  string  $file  an archive that holds them; it stays
     *
     * @throws Problem
     */
    public function archive(Site $site, RemotePath $into, string $file, ?Person $person): Deployment
    {
        return $this->order($site, $into, $this->intake->unpack($file, 'the upload'), $person);
    }

    /**
     * @param  array<string, string>  $files  of ours, by the names they are to have
     *
     * @throws Problem
     */
    public function files(Site $site, RemotePath $into, array $files, ?Person $person): Deployment
    {
        return $this->contents($site, $into, array_map(FilePieces::read(...), $files), $person);
    }

    /**
     * @param  array<string, string>  $texts  by the names they are to have
     *
     * @throws Problem
     */
    public function texts(Site $site, RemotePath $into, array $texts, ?Person $person): Deployment
    {
        return $this->contents($site, $into, array_map(static fn (string $text): array => [$text], $texts), $person);
    }

    /**
     * @param  array<string, iterable<string>>  $contents  pieces, by the names they are to have
     *
     * @throws Problem
     */
    private function contents(Site $site, RemotePath $into, array $contents, ?Person $person): Deployment
    {
        $entries = [];
        foreach ($contents as $name => $pieces) {
            $content = $this->store->put($pieces);
            $entries[] = new ManifestEntry(
                RelativePath::fromString((string) $name),
                EntryKind::File,
                $content->size,
                null,
                null,
                $content->sha256,
            );
        }

        return $this->order($site, $into, Manifest::fromEntries($entries), $person);
    }

    /**
     * Files of another site of the same client.
     *
     * @param  Manifest  $files  contents in the store, paths from the directory
     * @param  array<string, mixed>|null  $originals  what is set aside there once these are proven here, as its form
     *     asks for it, with the address it goes to as "action"; null where they stay
     *
     * @throws Problem
     */
    public function copies(
        Site $site,
        RemotePath $into,
        Manifest $files,
        ?array $originals,
        ?Person $person,
    ): Deployment {
        $files->files() === [] && throw new Problem('There is no file in what was chosen.');
        $plan = $this->plans->orderFiles(
            $site,
            $into,
            self::placed($files->files(), $site->applicationRoot(), $into),
            null,
            $person,
        );
        $originals === null || $this->runs->keepOriginals($plan, $originals);

        return $plan;
    }

    /** @throws Problem */
    private function order(Site $site, RemotePath $into, Manifest $brought, ?Person $person): Deployment
    {
        [$brought, $copy] = $this->workingCopy($brought);
        $into = $copy->directory ?? $into;
        $root = $site->applicationRoot();
        if ($copy !== null && $copy->from !== $site->domain) {
            throw new Problem("These files were downloaded from $copy->from. Bring them back there, or without "
                .WorkingCopy::NAME.', which says so.');
        }
        if (! $root->contains($into)) {
            throw new Problem("$into does not belong to $site->domain, whose files begin at $root.");
        }
        $base = $copy?->manifest();
        $isOther = static fn (ManifestEntry $file): bool => $file->sha256 !== $base?->get($file->path)?->sha256;
        $changed = array_values(array_filter($brought->files(), $isOther));
        if ($changed === []) {
            throw new Problem(
                $base === null
                    ? 'There is no file in what was brought.'
                    : 'None of the '.count($brought->files()).' files is different from what was downloaded, so there '
                        .'is nothing to upload.',
            );
        }

        return $this->plans->orderFiles(
            $site,
            $into,
            self::placed($changed, $root, $into),
            $base === null ? null : self::placed($base->files(), $root, $into),
            $person,
        );
    }

    /**
     * What was downloaded to be worked on says so in a file at its top, or in its only folder; or all of it is still
     * the archive that was downloaded.
     *
     * @return array{Manifest, WorkingCopy|null} files as they lay then
     *
     * @throws Problem
     */
    private function workingCopy(Manifest $brought): array
    {
        $files = $brought->files();
        if (count($files) === 1 && $files[0]->path->extension() === 'zip') {
            $inside = $this->inside($files[0]);
            $brought = $inside ?? $brought;
        }
        foreach ($brought->files() as $file) {
            if ($file->path->name() === WorkingCopy::NAME && $file->path->depth() <= 2) {
                $top = $file->path->parent();
                $within = $top === null ? $brought : $brought->inside($top->toString());

                return [$within->without([WorkingCopy::NAME]), $this->read($file)];
            }
        }

        return [$brought, null];
    }

    /** What an archive holds that is a working copy; null for any other, which is a file like all files. */
    private function inside(ManifestEntry $file): ?Manifest
    {
        $archive = ScratchFile::fromStream($this->store->read((string) $file->sha256));
        $zip = new \ZipArchive;
        $isCopy = $zip->open($archive->path, \ZipArchive::RDONLY) === true
            && $zip->locateName(WorkingCopy::NAME) !== false;

        return $isCopy ? $this->intake->unpack($archive->path, $file->path->name()) : null;
    }

    /** @throws Problem */
    private function read(ManifestEntry $file): WorkingCopy
    {
        $file->size <= self::LARGEST_COPY || throw new Problem(
            "$file->path is larger than any that was downloaded here. Download the files anew.",
        );
        try {
            return WorkingCopy::fromText($this->store->text((string) $file->sha256));
        } catch (\UnexpectedValueException $fault) {
            throw new Problem("$file->path cannot be read: {$fault->getMessage()} Download the files anew.");
        }
    }

    /** @param  list<ManifestEntry>  $files  paths from the directory */
    private static function placed(array $files, RemotePath $root, RemotePath $into): Manifest
    {
        $prefix = $root->toward($into);
        $entries = [];
        foreach ($files as $file) {
            $path = $prefix === null ? $file->path : RelativePath::fromString("$prefix/$file->path");
            $entries[] = $file->at($path)->withMode(null);
            foreach ($path->ancestors() as $above) {
                $entries[] = new ManifestEntry($above, EntryKind::Directory);
            }
        }

        return Manifest::fromEntries($entries);
    }
}
