<?php

declare(strict_types=1);

namespace App\Watch;

use App\Text\Amount;
use Cellarium\Core\Storage\SweptContents;

/** The outcome of one clearing. */
final readonly class CleanupResult
{
    /**
     * @param  int  $files  on their way in that never arrived, removed
     * @param  int  $bytes  of these
     */
    public function __construct(public int $files, public int $bytes, public SweptContents $swept)
    {
    }

    public function isNothing(): bool
    {
        return $this->files + $this->swept->asideFiles + $this->swept->backFiles + $this->swept->deletedFiles === 0;
    }

    public function words(): string
    {
        $swept = $this->swept;
        $said = array_filter([
            $this->files === 0 ? '' : Amount::files($this->files).' that never arrived removed, '
                .Amount::bytes($this->bytes).' freed',
            $swept->asideFiles === 0 ? '' : Amount::files($swept->asideFiles).' that nothing refers to moved aside for '
                .'a week, '.Amount::bytes($swept->asideBytes),
            $swept->backFiles === 0 ? '' : Amount::files($swept->backFiles).' brought back from there, since they are '
                .'referred to again',
            $swept->deletedFiles === 0 ? '' : Amount::files($swept->deletedFiles).' that lay aside deleted, '
                .Amount::bytes($swept->freedBytes).' freed',
        ]);

        return $said === [] ? 'There is nothing to clean' : ucfirst(implode('; ', $said));
    }

    /** @return array<string, int> */
    public function toArray(): array
    {
        return [
            'files' => $this->files,
            'bytes' => $this->bytes,
            'aside_files' => $this->swept->asideFiles,
            'aside_bytes' => $this->swept->asideBytes,
            'back_files' => $this->swept->backFiles,
            'deleted_files' => $this->swept->deletedFiles,
            'freed_bytes' => $this->swept->freedBytes,
        ];
    }
}
