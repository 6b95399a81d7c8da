<?php

declare(strict_types=1);

namespace App\Packages;

use App\Models\Package;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Package\Compare\ChangedFile;
use Cellarium\Core\Package\Compare\DifferenceRow;
use Cellarium\Core\Package\Compare\FileChange;
use Cellarium\Core\Package\Compare\PackageDifference;
use Cellarium\Core\Package\Compare\TextDifference;
use Cellarium\Core\Package\Contents\PackageContents;
use Cellarium\Core\Storage\ContentStore;

/** The differences of two versions, and one text of them side by side. */
final readonly class CompareView
{
    /** Files that are listed; what is more is counted. */
    public const MOST = 400;

    public PackageDifference $difference;

    private PackageContents $contents;

    /** @param  string  $file  that is shown side by side, by its path in the later version; "" for none */
    public function __construct(
        public Package $before,
        public Package $after,
        ContentStore $store,
        public string $file,
    ) {
        $this->difference = PackageDifference::between($before->contents(), $after->contents());
        $this->contents = new PackageContents($store);
    }

    public function chosen(): ?ChangedFile
    {
        foreach ($this->difference->files as $file) {
            if ($file->path() === $this->file) {
                return $file;
            }
        }

        return null;
    }

    /** @return list<list<DifferenceRow>>|null null where it is no text, or too much of it */
    public function parts(ChangedFile $file): ?array
    {
        $before = $this->text($file->before);
        $after = $this->text($file->after);

        return TextDifference::isPossible($before, $after) ? TextDifference::between($before, $after) : null;
    }

    public function inWords(): string
    {
        $words = [];
        foreach (FileChange::cases() as $change) {
            $count = count($this->difference->of($change));
            $count === 0 || $words[] = number_format($count)." $change->value";
        }

        return implode(', ', [...$words, number_format($this->difference->same).' the same']);
    }

    public function url(string $file): string
    {
        return "/packages/{$this->after->id}/compare/{$this->before->id}?".http_build_query(['file' => $file]);
    }

    public static function tone(FileChange $change): string
    {
        return match ($change) {
            FileChange::Added => 'proven',
            FileChange::Changed => 'soon',
            FileChange::Renamed => 'kept',
            FileChange::Gone => 'now',
        };
    }

    /** What is large is read as far as it takes to see that. */
    private function text(?ManifestEntry $entry): string
    {
        return $entry === null ? '' : $this->contents->head($entry, 600_000);
    }
}
