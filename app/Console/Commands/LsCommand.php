<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Failure\Problem;
use App\Files\FileEntry;
use App\Files\FilePlace;
use App\Files\Listings;
use Cellarium\Core\File\Rights;
use Cellarium\Core\People\Permission;

final class LsCommand extends CellariumCommand
{
    protected const PERMISSION = Permission::LookAtAgency;

    protected $signature = 'cellarium:ls {site : the domain} {path? : from where the site begins} {--json}';

    protected $description = 'What a folder of a site holds, and where each file comes from';

    public function handle(Listings $listings): int
    {
        $site = $this->siteNamed((string) $this->argument('site'));
        $place = FilePlace::ofSite($site, trim((string) $this->argument('path'), '/'));
        $entries = Listings::entries($listings->look($place))
            ?? throw new Problem("What $place->at holds could not be kept.");
        if ($this->wantsJson()) {
            $this->json([
                'ok' => true,
                'site' => $site->domain,
                'path' => $place->at->toString(),
                'entries' => array_map(static fn (FileEntry $entry): array => self::facts($place, $entry), $entries),
            ]);

            return self::PROVEN;
        }
        foreach ($entries as $entry) {
            $this->line(sprintf(
                '%4s %12s  %-16s %s%s',
                $entry->mode === null ? '' : Rights::digits($entry->mode),
                $entry->isFile() ? (string) $entry->size : '',
                str_replace('_', ' ', $entry->provenance->value),
                $entry->name,
                $entry->isDirectory() ? '/' : '',
            ));
        }

        return self::PROVEN;
    }

    /** @return array<string, mixed> */
    private static function facts(FilePlace $place, FileEntry $entry): array
    {
        return [
            'name' => $entry->name,
            'kind' => $entry->kind->value,
            'size' => $entry->size,
            'modified' => $entry->modified,
            'mode' => $entry->mode === null ? null : Rights::digits($entry->mode),
            'comes_from' => $entry->provenance->value,
            'deployment' => $entry->deployment,
            'address' => $place->addressOf($place->at->child($entry->name)),
        ];
    }
}
