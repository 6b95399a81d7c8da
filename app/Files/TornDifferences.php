<?php

declare(strict_types=1);

namespace App\Files;

use App\Models\ChangeByHand;
use Cellarium\Core\File\NotText;
use Cellarium\Core\File\SideBySide;
use Cellarium\Core\File\TextFile;
use Cellarium\Core\Storage\ContentStore;

/** Pages that would be mended, as they are beside as they would be. */
final readonly class TornDifferences
{
    private const MOST = 20;

    public function __construct(private ContentStore $store)
    {
    }

    /** @return array<string, SideBySide> by page, of the first so many; without those that cannot be shown as text */
    public function of(ChangeByHand $change): array
    {
        $texts = [];
        foreach (array_slice(TornPages::ofChange($change)->mends ?? [], 0, self::MOST) as $mend) {
            $before = $this->text($mend->sha256);
            $after = $this->text((string) $mend->save->sha256);
            $sides = $before === null || $after === null ? null : SideBySide::fromTexts($before, $after);
            $sides === null || $texts[$mend->page] = $sides;
        }

        return $texts;
    }

    private function text(string $sha256): ?string
    {
        try {
            return $this->store->has($sha256)
                ? TextFile::fromBytes($this->store->text($sha256))->edited()
                : null;
        } catch (NotText) {
            return null;
        }
    }
}
