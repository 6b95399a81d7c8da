<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Deployments\Bringing;
use App\Failure\Problem;
use App\Files\FilePlace;
use App\Models\Deployment;
use App\Models\Person;
use App\Text\Amount;
use Cellarium\Core\Path\PathRefused;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Plan\Change;
use Symfony\Component\Finder\Finder;

final class PutCommand extends RunCommand
{
    protected $signature = 'cellarium:put {site : the domain} {from : a file or a folder here} '
        .'{path? : the folder it goes into, from where the site begins; that itself when none is given} '
        .'{--yes : start without asking} {--json}';

    protected $description = 'Upload a file, or what lies in a folder: compared first, backed up, proven';

    public function handle(Bringing $bringing): int
    {
        $site = $this->siteNamed((string) $this->argument('site'));
        $into = FilePlace::ofSite($site, trim((string) $this->argument('path'), '/'))->at;
        $files = [];
        foreach ($this->files((string) $this->argument('from')) as $name => $file) {
            $files[$name] = $file;
        }
        $person = Person::viewer();

        return $this->runToItsEnd($bringing->files(
            $site,
            $into,
            $files,
            $person,
        ));
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
