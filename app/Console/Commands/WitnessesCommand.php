<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Backups\Witnesses;
use App\Backups\WitnessesAccepted;
use App\Failure\Problem;
use Cellarium\Core\People\Permission;

final class WitnessesCommand extends CellariumCommand
{
    protected const PERMISSION = Permission::ChangeAccounts;

    protected $signature = 'cellarium:witnesses '
        .'{--accept : what is missing is lost for good, and what is not known is set aside} {--json}';

    protected $description = 'Say whether database and lists tell of the same backups, and which of them is short';

    public function handle(WitnessesAccepted $accepted): int
    {
        $witnesses = Witnesses::look();
        $isAccepted = ! $witnesses->agree() && $this->option('accept') === true;
        $isAccepted && $accepted->accept($witnesses);
        $agree = $isAccepted || $witnesses->agree();
        $agree || $this->wantsJson() || throw new Problem($witnesses->words());
        $this->wantsJson()
            ? $this->json([
                'ok' => $agree,
                'backups' => $witnesses->rows,
                'lists' => $witnesses->lists,
                'missing' => $witnesses->missing,
                'unknown' => $witnesses->unknown,
                'record_ahead' => $witnesses->ahead,
                'accepted' => $isAccepted,
            ])
            : $this->components->info($isAccepted ? 'Accepted as it is, and recorded.' : $witnesses->words());

        return $agree ? self::PROVEN : self::REFUSED;
    }
}
