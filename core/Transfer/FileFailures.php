<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

/** Files that could not be done while others are; few, since many of them say something of the server. */
final class FileFailures
{
    private const MOST = 20;

    /** @var list<TransferFailed> */
    public array $all = [];

    /** @throws TransferFailed the same, where it is not one of single files or there are too many */
    public function add(TransferFailed $failure): void
    {
        if (! $failure->failure->reason->isOfOneFile() || count($this->all) >= self::MOST) {
            throw $failure;
        }
        $this->all[] = $failure;
    }
}
