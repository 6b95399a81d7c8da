<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

/** One place in a document that names another. */
final readonly class Reference
{
    /**
     * @param  string  $how  "img src", "css url", "module import"
     * @param  string  $value  as a browser reads it: character references decoded, blanks at either end gone
     * @param  int  $offset  in bytes, of the value as it is written in the document
     * @param  int  $length  in bytes, of the same
     * @param  int|null  $shownWidth  of an image that is shown in a width of its own, in CSS pixels
     */
    public function __construct(
        public ReferenceKind $kind,
        public string $how,
        public string $value,
        public int $offset,
        public int $length,
        public ?int $shownWidth = null,
    ) {
    }
}
