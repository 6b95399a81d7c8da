<?php

declare(strict_types=1);

namespace App\Packages;

use App\Failure\Problem;
use App\Models\Package;
use App\Models\Person;
use App\Models\Upload;
use Cellarium\Core\Package\PackageRefused;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Upload\PartialFile;

/** Packages that come in pieces; what does not come to its end is removed after DAYS without a piece. */
final readonly class Uploads
{
    public const DAYS = 3;

    public function __construct(private Packages $packages)
    {
    }

    public static function mostBytes(): int
    {
        return (int) config('cellarium.upload_bytes');
    }

    /** @throws StoreFailure */
    public function begin(Person $person, string $name, int $length, ?int $site, ?string $into = null): Upload
    {
        $upload = Upload::create([
            'person_id' => $person->id,
            'site_id' => $site,
            'file_name' => mb_substr(basename(str_replace('\\', '/', mb_scrub($name))), 0, 200),
            'length' => $length,
            'into' => $into,
            'expires_at' => now()->addDays(self::DAYS),
        ]);
        $this->file($upload)->begin();

        return $upload;
    }

    public function file(Upload $upload): PartialFile
    {
        return new PartialFile(self::path($upload), $upload->length);
    }

    /**
     * Makes a package of what has arrived; the file is gone then, whether it was one or not. Who waits for it finds
     * the upload for some days more.
     *
     * @throws Problem where not all of it is there
     * @throws PackageRefused
     * @throws StoreFailure
     */
    public function finish(Upload $upload): Package
    {
        if (! $this->file($upload)->isWhole()) {
            throw new Problem('Not all of it has arrived. Upload it again; it goes on where it ended.');
        }
        try {
            $package = $this->packages->take(self::path($upload), $upload->file_name);
        } catch (PackageRefused $refused) {
            @unlink(self::path($upload));
            throw $refused;
        }
        unlink(self::path($upload));

        return $package;
    }

    /**
     * The file as it arrived, for whoever takes it over.
     *
     * @throws Problem where not all of it is there
     */
    public function whole(Upload $upload): string
    {
        return $this->file($upload)->isWhole()
            ? self::path($upload)
            : throw new Problem('Not all of it has arrived. Upload it again; it goes on where it ended.');
    }

    /** What was taken over lies elsewhere now; who waits for it finds the upload for some days more. */
    public function empty(Upload $upload): void
    {
        @unlink(self::path($upload)); // It may be done a second time.
    }

    public function remove(Upload $upload): void
    {
        $upload->delete();
        @unlink(self::path($upload)); // It may never have been begun.
    }

    /** Those without a piece for too long. */
    public function expire(): void
    {
        foreach (Upload::where('expires_at', '<', now())->lazyById() as $upload) {
            $this->remove($upload);
        }
    }

    /** @return list<string> files of uploads that the database does not know, as those of people that were removed */
    public function orphans(): array
    {
        $files = glob(config('cellarium.var').'/arriving/*') ?: [];
        $known = Upload::whereIn('id', array_map(basename(...), $files))->pluck('id')->flip()->all();

        return array_values(array_filter(
            $files,
            static fn (string $file): bool => ! isset($known[(int) basename($file)]),
        ));
    }

    private static function path(Upload $upload): string
    {
        return config('cellarium.var')."/arriving/$upload->id";
    }
}
