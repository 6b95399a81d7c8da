<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Path\WireName;

/** Reads what NLST answers (RFC 959): a name a line, by some servers with the path before it. */
final readonly class NameListing implements ListingLines
{
    public function entry(string $line): ?RemoteEntry
    {
        $slash = strrpos($line, '/');
        $name = $slash === false ? $line : substr($line, $slash + 1);

        return in_array($name, ['', '.', '..'], true) || str_contains($name, "\0")
            ? null
            : new RemoteEntry(WireName::fromWire($name), EntryKind::Other);
    }
}
