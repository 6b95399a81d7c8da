<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Packages\FindingGroup;
use App\Packages\ScratchInspection;
use App\Text\Amount;
use Cellarium\Core\Package\Inspection;

final class InspectCommand extends CellariumCommand
{
    protected $signature = 'cellarium:inspect {file : a zip, tar, tar.gz or tar.xz} {--json}';

    protected $description = 'Say what a package is, what is wrong with it and how it would land; nothing is kept';

    public function handle(ScratchInspection $inspection): int
    {
        $file = $this->readable((string) $this->argument('file'));
        $found = $inspection->inspect($file, basename($file));
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
