<?php

declare(strict_types=1);

namespace Cellarium\Core\Letter;

/** The sign between a label and its value, and how sure it makes that they belong together. */
enum LabelMark
{
    /** A colon, an equals sign, a tab, a bar, leaders, an arrow. */
    case Sign;

    /** "is", in a sentence. */
    case Is;

    /** A gap of two blanks and more. */
    case Gap;

    /** The line or cell ends: the value stands on the next line, or below in the column. */
    case End;

    /** A single blank. */
    case Blank;

    /** The label stands in brackets behind its value. */
    case Behind;

    public function score(): float
    {
        return match ($this) {
            self::Sign => 10.0,
            self::Gap, self::Is, self::End => 8.0,
            self::Behind => 6.0,
            self::Blank => 5.0,
        };
    }
}
