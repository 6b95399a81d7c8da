<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

interface NameService
{
    /** @return list<string> IP addresses, empty when the name has none */
    public function addresses(string $host): array;
}
