<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Failure\Problem;
use App\Files\FilePlace;
use App\Models\Deployment;
use App\Models\Person;
use App\Plans\ManualUpload;
use App\Storage\RunFiles;
use App\Text\Amount;
use Cellarium\Core\Path\PathRefused;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Plan\Change;
use Symfony\Component\Finder\Finder;

final class PutCommand extends RunCommand
{
    protected $signature = 'cellarium:put {site : the domain} {from : a file or a folder here} '
        .'{path? : the folder it goes into, from where the site begins; that itself when none is given} '
        .'{--contents : of a folder with a start page what lies in it is meant} {--folder : it is meant itself} '
        .'{--yes : start without asking} {--json}';

    protected $description = 'Upload a file, or what lies in a folder: compared first, backed up, proven';

    public function handle(ManualUpload $bringing, RunFiles $runs): int
    {
        $site = $this->siteNamed((string) $this->argument('site'));
        $into = FilePlace::ofSite($site, trim((string) $this->argument('path'), '/'))->at;
        $files = [];
        $found = $this->files((string) $this->argument('from'));
        foreach ($this->option('contents') === true ? self::lifted($found) : $found as $name => $file) {
            $files[$name] = $file;
        }
        $plan = $bringing->files($site, $into, $files, Person::viewer());
        $this->option('folder') === true && $runs->keepFolderMeant($plan);

        return $this->runToItsEnd($plan);
    }

    protected function mayStart(Deployment $deployment): bool
    {
        if ($this->option('yes') === true) {
            return true;
        }
        $what = [];
        foreach ($deployment->counts ?? [] as $change => $count) {
            $count['files'] === 0 || $what[] = Change::from($change)->label().' '.Amount::files($count['files']).', '
                .Amount::bytes($count['bytes']);
        }
        if ($this->wantsJson() || ! $this->input->isInteractive()) {
            $this->refuse(
                "The plan is made and nothing was touched: deployment $deployment->id. Start it with --yes, or in "
                    .'the browser.',
            );

            return false;
        }
        $this->line(implode("\n", $what));

        return $this->confirm('Start?');
    }

    /**
     * @param  array<string, string>  $files
     * @return array<string, string> the same without the folder that all of them lie in
     *
     * @throws Problem
     */
    private static function lifted(array $files): array
    {
        $tops = array_unique(array_map(
            static fn (string|int $name): string => (string) strstr((string) $name, '/', true),
            array_keys($files),
        ));
        $top = reset($tops);
        count($tops) === 1 && $top !== false && $top !== ''
            || throw new Problem('What is uploaded does not lie in one folder. Leave --contents away.');

        $below = static fn (string|int $name): string => substr((string) $name, strlen("$top/"));

        return array_combine(array_map($below, array_keys($files)), $files);
    }

    /**
     * @return array<string, string> files here, by the paths they are to have
     *
     * @throws Problem
     */
    private function files(string $from): array
    {
        if (is_dir($from)) {
            $files = [];
            foreach ((new Finder)->files()->ignoreDotFiles(false)->ignoreVCS(false)->in($from) as $file) {
                $files[$file->getRelativePathname()] = $file->getPathname();
            }
        } else {
            $files = [basename($from) => $this->readable($from)];
        }
        foreach (array_keys($files) as $name) {
            try {
                RelativePath::fromString((string) $name);
            } catch (PathRefused $refused) {
                throw new Problem("$name cannot be uploaded: {$refused->getMessage()}");
            }
        }

        return $files;
    }
}
