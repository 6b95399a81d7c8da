<?php

declare(strict_types=1);

namespace App\Files;

use App\Models\FileDraft;
use Cellarium\Core\File\NotText;
use Cellarium\Core\File\SideBySide;
use Cellarium\Core\File\TextMistake;
use Cellarium\Core\File\TextMistakes;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Storage\ContentStore;

/** The review of a text before it is saved: what differs, and what is wrong with it now that was not before. */
final readonly class TextReview
{
    public function __construct(
        private TextEditing $editing,
        private TextMistakes $mistakes,
        private ContentStore $store,
        private TextInspection $inspection,
    ) {
    }

    /**
     * @return array{
     *     difference: SideBySide|null,
     *     isSame: bool,
     *     mistakes: list<TextMistake>,
     *     barred: string|null,
     *     stop: string|null,
     *     label: string,
     * } why it cannot be saved stands in "barred"; why only with a reason in "stop"
     */
    public function of(FilePlace $place, FileDraft $draft): array
    {
        $base = $this->editing->base($draft);
        $edited = (string) ($draft->text ?? $base->edited());
        $barred = null;
        $found = [];
        try {
            $found = $this->inspection->newIn($place, $draft, $base->bytesOf($edited));
        } catch (NotText $not) {
            $barred = $not->getMessage();
        }
        $stop = ($found[0] ?? null)?->stops() === true ? array_shift($found) : null;

        return [
            'difference' => SideBySide::fromTexts($base->edited(), $edited),
            'isSame' => $draft->text === null,
            'mistakes' => [
                ...$this->mistakes->newIn(RelativePath::fromString($draft->path()->name()), $base->edited(), $edited),
                ...array_map(
                    static fn (PackageFinding $one): TextMistake => new TextMistake($one->line, "It $one->message"),
                    $found,
                ),
            ],
            'barred' => $barred,
            'stop' => $stop === null ? null : "{$draft->path()->name()} $stop->message",
            'label' => $base->label(),
        ];
    }

    /**
     * What somebody else changed meanwhile, beside what was changed here; null where nobody did.
     *
     * @return array{sides: SideBySide|null, clashes: list<array{int, string, string}>|null}|null
     */
    public function merged(FileDraft $draft): ?array
    {
        $merged = $draft->text === null ? null : $draft->merged;
        if ($merged === null || ! $this->store->has($merged['base']) || ! $this->store->has($merged['ours'])) {
            return null;
        }

        return [
            'sides' => SideBySide::fromTexts(
                $this->editing->held($merged['base'])->edited(),
                $this->editing->base($draft)->edited(),
                $this->store->text($merged['ours']),
            ),
            'clashes' => $merged['clashes'],
        ];
    }
}
