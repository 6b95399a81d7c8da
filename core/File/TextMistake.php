<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

/** Something in a text that whoever reads it by its language does not understand. */
final readonly class TextMistake
{
    /** @param  int|null  $line  from 1; null where that is not told */
    public function __construct(public ?int $line, public string $sentence)
    {
    }
}
