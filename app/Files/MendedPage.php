<?php

declare(strict_types=1);

namespace App\Files;

use Cellarium\Core\File\FileChange;

/** A page whose references would be mended. */
final readonly class MendedPage
{
    /**
     * @param  string  $page  below the document root, as it is called now
     * @param  string  $sha256  of what it holds now, in the store
     * @param  FileChange  $save  what would be saved, where it lies then
     */
    public function __construct(public string $page, public string $sha256, public FileChange $save)
    {
    }
}
