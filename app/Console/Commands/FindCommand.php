<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Failure\Problem;
use App\Files\FilePlace;
use App\Files\FileSecrets;
use App\Files\RemoteFileSearch;
use Carbon\CarbonImmutable;
use Cellarium\Core\File\FileMatches;
use Cellarium\Core\File\FileQuery;
use Cellarium\Core\File\FoundFile;
use Cellarium\Core\People\Permission;

final class FindCommand extends CellariumCommand
{
    protected const PERMISSION = Permission::LookAtAgency;

    protected $signature = 'cellarium:find {site : the domain} {name? : any part of it, or a pattern with * and ?} '
        .'{--in= : the folder to begin in, from where the site begins} {--text= : what stands in it} '
        .'{--exact : in exactly these capitals} {--smallest= : in bytes} {--largest= : in bytes} '
        .'{--from= : changed on this day or later, 2026-05-31} {--until= : changed on this day or before} {--json}';

    protected $description = 'Find files of a site (exit 0 when all was looked through, 1 when not)';

    public function handle(RemoteFileSearch $finding): int
    {
        $site = $this->siteNamed((string) $this->argument('site'));
        $place = FilePlace::ofSite($site, trim((string) $this->option('in'), '/'));
        $fileQuery = new FileQuery(
            (string) $this->argument('name'),
            $this->number('smallest'),
            $this->number('largest'),
            $this->day('from')?->getTimestamp(),
            $this->day('until')?->addDay()->getTimestamp(),
            (string) $this->option('text'),
            $this->option('exact') === true,
        );
        $told = 0;
        $tell = function (FileMatches $findings) use ($place, &$told): void {
            foreach ($this->wantsJson() ? [] : array_slice($findings->found, $told) as $found) {
                $told++;
                $this->line($place->base->toward($found->path)?->toString() ?? '');
                foreach ($this->lines($found) as [$number, $line]) {
                    $this->line("    $number: $line");
                }
            }
        };
        $findings = $finding->find($place, $fileQuery, $tell);
        $tell($findings);
        $isWhole = $findings->unread === [] && ! $findings->isCut;
        $this->wantsJson() ? $this->json([
            'ok' => $isWhole,
            'site' => $site->domain,
            'below' => $place->at->toString(),
            'found' => array_map(fn (FoundFile $found): array => [
                'path' => $found->path->toString(),
                'kind' => $found->entry->kind->value,
                'size' => $found->entry->size,
                'modified' => $found->entry->modified,
                'lines' => $this->lines($found),
            ], $findings->found),
            'folders' => $findings->directories,
            'names' => $findings->names,
            'unread' => $findings->unread,
            'too_large' => $findings->tooLarge,
            'is_cut' => $findings->isCut,
        ]) : $this->tellEnd($findings);

        return $isWhole ? self::PROVEN : self::REFUSED;
    }

    private function tellEnd(FileMatches $findings): void
    {
        $this->components->info(sprintf(
            '%d found, %d folders with %d names looked through%s.',
            count($findings->found),
            $findings->directories,
            $findings->names,
            $findings->tooLarge === 0 ? '' : ", $findings->tooLarge too large to be read",
        ));
        foreach ($findings->unread as [$path, $why]) {
            $this->components->warn("$path could not be looked at: $why.");
        }
        $findings->isCut && $this->components->warn('There is more. Look for something narrower.');
    }

    /** @return list<array{int, string}> */
    private function lines(FoundFile $found): array
    {
        $account = $this->siteNamed((string) $this->argument('site'))->account_id;

        return FileSecrets::areLinesHidden($account, $found) ? [] : $found->lines;
    }

    private function number(string $option): ?int
    {
        $given = $this->option($option);

        return match (true) {
            $given === null => null,
            ctype_digit($given) => (int) $given,
            default => throw new Problem("--$option is a number of bytes."),
        };
    }

    private function day(string $option): ?CarbonImmutable
    {
        $given = $this->option($option);

        return match (true) {
            $given === null => null,
            CarbonImmutable::canBeCreatedFromFormat($given, '!Y-m-d') => CarbonImmutable::createFromFormat(
                '!Y-m-d',
                $given,
            ),
            default => throw new Problem("--$option is a day, like 2026-05-31."),
        };
    }
}
