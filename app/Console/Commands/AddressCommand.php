<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Failure\Problem;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\People\Permission;

final class AddressCommand extends CellariumCommand
{
    protected const PERMISSION = Permission::LookAtSites;

    protected $signature = 'cellarium:address {site : the domain} {path : a path on the server, or an address of the '
        .'site} {--json : one JSON object on standard output}';

    protected $description = 'The address visitors use for a path on the server, or the path behind an address';

    public function handle(): int
    {
        $site = $this->siteNamed((string) $this->argument('site'));
        $given = (string) $this->argument('path');
        if (str_contains($given, '//')) {
            $place = $site->addresses()->placeOf($given)
                ?? throw new Problem("This address does not belong to $site->domain or one of its aliases.");
        } else {
            $place = RemotePath::fromString($given);
        }
        $address = $site->addresses()->of($place);
        if ($address === null && ! str_contains($given, '//')) {
            throw new Problem(
                "Visitors of $site->domain cannot "
                    ."reach $place: it lies outside $site->document_root, or something else answers at its address.",
            );
        }
        $this->wantsJson()
            ? $this->json(['site' => $site->domain, 'path' => $place->toString(), 'address' => $address])
            : $this->line(str_contains($given, '//') ? $place->toString() : (string) $address);

        return self::PROVEN;
    }
}
