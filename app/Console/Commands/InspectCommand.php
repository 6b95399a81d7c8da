<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Packages\FindingGroup;
use App\Text\Amount;
use Cellarium\Core\Package\ArchiveLimits;
use Cellarium\Core\Package\Inspection;
use Cellarium\Core\Package\PackageIntake;
use Cellarium\Core\Storage\FileContentStore;
use Psr\Clock\ClockInterface;

final class InspectCommand extends CellariumCommand
{
    protected $signature = 'cellarium:inspect {file : a zip, tar, tar.gz or tar.xz} {--json}';

    protected $description = 'Say what a package is, what is wrong with it and how it would land; nothing is kept';

    public function handle(ClockInterface $clock, ArchiveLimits $limits): int
    {
        $file = $this->readable((string) $this->argument('file'));
        $scratch = sys_get_temp_dir().'/cellarium-inspect-'.bin2hex(random_bytes(8));
        try {
            $store = new FileContentStore($scratch, isDurable: false);
            $found = (new PackageIntake($store, $clock, $limits))->take($file, basename($file));
        } finally {
            $this->laravel->make('files')->deleteDirectory($scratch);
        }
        $this->wantsJson()
            ? $this->json(['ok' => ! $found->stops(), ...$found->toArray()])
            : $this->say($found);

        return $found->stops() ? self::REFUSED : self::PROVEN;
    }

    private function say(Inspection $found): void
    {
        $this->components->twoColumnDetail(
            trim("$found->name $found->version"),
            Amount::files(count($found->manifest->files())).', '.Amount::bytes($found->manifest->bytes()),
        );
        foreach (FindingGroup::all($found->findings) as $group) {
            $this->components->twoColumnDetail($group->title(), "{$group->label()} · {$group->code->value}");
            foreach ($group->findings as $finding) {
                $this->components->bulletList([FindingGroup::where($finding).$finding->message]);
            }
        }
    }
}
