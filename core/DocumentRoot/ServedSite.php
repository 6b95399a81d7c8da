<?php

declare(strict_types=1);

namespace Cellarium\Core\DocumentRoot;

use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Path\PublicAddress;
use Cellarium\Core\Web\WebFetcher;

/** A site from both ends: the directories of its account, and the addresses that visitors ask. */
final readonly class ServedSite
{
    /** @param  string|null  $hostAddress  IP address of the account's host, asked where the domain leads elsewhere */
    public function __construct(
        public RemoteDirectory $remote,
        public WebFetcher $fetcher,
        public PublicAddress $addresses,
        public ?string $hostAddress = null,
    ) {
    }
}
