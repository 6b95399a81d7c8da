<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Failure\Problem;
use App\Models\Person;
use App\Watch\Cleaner;
use Cellarium\Core\Storage\TooMuchToSweep;

final class CleanCommand extends CellariumCommand
{
    protected const BY_ITSELF = true;

    protected $signature = 'cellarium:clean '
        .'{--however-many : also where more than a tenth would go at once; needs --as} '
        .'{--empty-aside : delete what lies aside before its week is over; needs --as} {--json}';

    protected $description = 'Remove files that never arrived, move contents aside that nothing refers to, and say '
        .'what was freed';

    public function handle(Cleaner $cleaner): int
    {
        $however = $this->option('however-many') === true;
        $empties = $this->option('empty-aside') === true;
        ($however || $empties) && Person::viewer() === null && throw new Problem(
            'A person has to say so: name yourself with --as. Nothing was removed.',
        );
        try {
            $cleaned = $empties ? $cleaner->emptyAside() : $cleaner->clean($however);
        } catch (TooMuchToSweep $much) {
            throw new Problem(
                "{$much->getMessage()} If all of it is meant to go, say so with cellarium:clean --however-many "
                    .'--as=YOU, '
                    .'or on the page of the store.',
            );
        }
        $this->wantsJson()
            ? $this->json(['ok' => true] + $cleaned->toArray())
            : $this->components->info("{$cleaned->words()}.");

        return self::PROVEN;
    }
}
