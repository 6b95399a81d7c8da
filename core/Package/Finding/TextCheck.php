<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Finding;

use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Reference\Document;

/** Looks at every text of a package once, so that each is read once, however much is looked for. */
interface TextCheck
{
    /** @param  Document|null  $document  where it is of a kind that holds references */
    public function look(ManifestEntry $entry, string $text, ?Document $document): void;

    /** @return list<PackageFinding> once all were looked at */
    public function findings(): array;
}
