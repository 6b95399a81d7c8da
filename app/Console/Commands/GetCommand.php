<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Failure\Problem;
use App\Files\FilePlace;
use App\Files\FileSecrets;
use App\Hosting\Connections;
use Cellarium\Core\Package\SensitiveContent;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Transfer\Job\FetchFile;
use Cellarium\Core\Transfer\JobRunner;

final class GetCommand extends CellariumCommand
{
    protected $signature = 'cellarium:get {site : the domain} {path : a file, from where the site begins} '
        .'{to? : a file here that is not there yet; its own name when none is given} {--json}';

    protected $description = 'Download a file of a site';

    public function handle(Connections $connections): int
    {
        $site = $this->siteNamed((string) $this->argument('site'));
        $path = RelativePath::fromString(trim((string) $this->argument('path'), '/'));
        $to = (string) ($this->argument('to') ?? $path->name());
        file_exists($to) && throw new Problem("$to is there already. Nothing was written; name another file.");
        $place = FilePlace::ofSite($site, $path->toString())->at;
        $remote = $connections->remote($site->account);
        $found = $remote->stat($place);
        if ($found === null || $found->size === null) {
            throw new Problem("$place is no file, or not there. Look at its folder with cellarium:ls.");
        }
        FileSecrets::mayBeSeen($site->account_id, $place);
        $beside = "$to.part";
        try {
            (new JobRunner($remote))->run(new FetchFile($place, $beside, $found->size, $path->toString()));
            FileSecrets::mayBeSeen(
                $site->account_id,
                $place,
                (string) file_get_contents($beside, length: SensitiveContent::LOOKED_AT),
            );
            rename($beside, $to) || throw new Problem("$to could not be written. Look at the directory's permissions.");
        } finally {
            @unlink($beside);
        }
        $sha256 = (string) hash_file('sha256', $to);
        $this->wantsJson()
            ? $this->json([
                'ok' => true,
                'path' => $place->toString(),
                'to' => $to,
                'bytes' => $found->size,
                'sha256' => $sha256,
            ])
            : $this->components->info("$to: $found->size bytes, SHA-256 $sha256");

        return self::PROVEN;
    }
}
