<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Record\RecordSeal;
use Cellarium\Core\People\Permission;

final class RecordCommand extends CellariumCommand
{
    protected const PERMISSION = Permission::LookAtAgency;

    protected $signature = 'cellarium:record {--verify : read every line and say whether the chain holds} '
        .'{--json : one JSON object on standard output}';

    protected $description = 'Check that nothing in the record was changed, left out or put in between (exit 0 it '
        .'holds, 1 it does not)';

    public function handle(): int
    {
        if ($this->option('verify') !== true) {
            return $this->refuse('Say what to do with the record: --verify reads all of it and checks the chain.');
        }
        $found = RecordSeal::verify();
        $holds = $found['faults'] === [];
        if ($this->wantsJson()) {
            $this->json(['ok' => $holds] + $found);

            return $holds ? self::PROVEN : self::REFUSED;
        }
        foreach ($found['faults'] as $fault) {
            $this->components->error($fault);
        }
        $holds && $this->components->info("{$found['lines']} lines, each as it was written, none missing.");

        return $holds ? self::PROVEN : self::REFUSED;
    }
}
