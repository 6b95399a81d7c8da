<?php

declare(strict_types=1);

namespace App\Files;

use App\Models\GuardedFile;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Package\SensitiveContent;

/** Files that are left out of what somebody is given who sees no passwords. */
final class HiddenFiles
{
    /** @var list<string> */
    private array $names = [];

    public function __construct(private readonly FilePlace $place)
    {
    }

    /** @param  string  $local  our copy of it */
    public function leaveOut(ManifestEntry $entry, string $local): bool
    {
        $isHidden = ! GuardedFile::areShown() && FileSecrets::areHidden(
            $this->place->account->id,
            $this->place->at->join($entry->path),
            (string) file_get_contents($local, length: SensitiveContent::LOOKED_AT),
        );
        $isHidden && $this->names[] = $entry->path->toString();

        return $isHidden;
    }

    /** @return list<string> paths from the directory */
    public function names(): array
    {
        return $this->names;
    }
}
