<?php

declare(strict_types=1);

namespace App\Plans;

use App\Models\Deployment;
use App\Text\Amount;
use Cellarium\Core\File\SideBySide;
use Cellarium\Core\Plan\PlanItem;

/** One file of a plan, its sides beside each other: texts line by line, pictures as they are, else what is known. */
final readonly class PlanFileView
{
    private const PICTURES = ['png', 'jpg', 'jpeg', 'gif', 'webp', 'svg', 'ico', 'avif'];

    /** Texts with longer lines are none to be read, in bytes. */
    private const LONGEST_LINE = 4000;

    /**
     * @param  array<string, string|null>  $bytes  by the value of each side that there is
     * @param  bool  $isHidden  whether its contents are not for whoever looks
     */
    public function __construct(
        public Deployment $deployment,
        public PlanItem $item,
        public PlanRow $row,
        private array $bytes,
        public bool $isHidden,
    ) {
    }

    /** @return list<PlanSide> that there are */
    public function sides(): array
    {
        return array_values(array_filter(
            PlanSide::cases(),
            fn (PlanSide $side): bool => $side->of($this->item) !== null,
        ));
    }

    public function isPicture(): bool
    {
        return ! $this->isHidden && in_array($this->item->path->extension(), self::PICTURES, true);
    }

    public function address(PlanSide $side): string
    {
        return "/deployments/{$this->deployment->id}/side?".http_build_query([
            'path' => $this->item->path->toString(),
            'side' => $side->value,
        ]);
    }

    /** @return array<string, string> term => words */
    public function facts(PlanSide $side): array
    {
        $entry = $side->of($this->item);

        return $entry === null ? [] : array_filter([
            'Size' => Amount::bytes($entry->size),
            'Changed' => $entry->modified === null ? '' : gmdate('j M Y H:i:s', $entry->modified).' UTC',
            'Mode' => $entry->mode === null ? '' : sprintf('%04o', $entry->mode),
            'SHA-256' => $entry->sha256 ?? 'not read yet',
        ]);
    }

    /** Null where one of them is no text, is too long, or is not at hand. */
    public function texts(): ?SideBySide
    {
        $texts = array_map(fn (PlanSide $side): ?string => $this->bytes[$side->value] ?? null, $this->sides());
        foreach ($texts as $text) {
            if ($this->isHidden || $text === null || ! self::isText($text)) {
                return null;
            }
        }

        return count($texts) < 2 ? null : SideBySide::fromTexts(...array_map(strval(...), $texts));
    }

    private static function isText(string $bytes): bool
    {
        return mb_check_encoding($bytes, 'UTF-8')
            && ! str_contains($bytes, "\0")
            && max(array_map(strlen(...), explode("\n", $bytes))) <= self::LONGEST_LINE;
    }
}
