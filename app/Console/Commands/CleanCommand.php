<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Text\Amount;
use App\Watch\Cleaner;

final class CleanCommand extends CellariumCommand
{
    protected const BY_ITSELF = true;

    protected $signature = 'cellarium:clean {--json}';

    protected $description = 'Remove files that never arrived and contents that nothing refers to, and say what was '
        .'freed';

    public function handle(Cleaner $cleaner): int
    {
        $freed = $cleaner->clean();
        $this->wantsJson()
            ? $this->json(['ok' => true] + $freed)
            : $this->components->info(
                $freed['files'] === 0
                    ? 'There is nothing to clean.'
                    : Amount::files($freed['files']).' removed, '.Amount::bytes($freed['bytes']).' freed.',
            );

        return self::PROVEN;
    }
}
