<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Errands\ErrandResult;
use App\Errands\ErrandTask;
use App\Hosting\Connections;
use App\Models\Account;
use App\Models\Errand;
use App\Storage\RunIds;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Diagnosis\Rung;
use Cellarium\Core\Path\TemporaryName;

/** Tries what was typed and not yet saved; that stays with it until it is shown again. */
final class TryAccount extends ErrandTask
{
    public function __construct(private readonly Connections $connections)
    {
    }

    public static function title(): string
    {
        return 'Trying the connection';
    }

    protected function do(Errand $errand): ErrandResult
    {
        $values = $errand->given['values'] ?? [];
        $account = (new Account)->forceFill(['protocol' => Protocol::from((string) $values['protocol'])] + $values);
        $climbed = $this->connections->ladder()->climb(
            $this->connections->endpointAsSaved($account),
            $errand->account?->known_address,
            [],
            null,
            TemporaryName::forRun(RunIds::ofProbe(), 0),
        );

        return new ErrandResult('', result: [
            'rungs' => array_map(static fn (Rung $rung): array => $rung->toArray(), $climbed->rungs),
            'held' => $climbed->holds(),
        ]);
    }
}
