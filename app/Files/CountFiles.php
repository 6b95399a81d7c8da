<?php

declare(strict_types=1);

namespace App\Files;

use App\Errands\ErrandResult;
use App\Errands\ErrandTask;
use App\Failure\Problem;
use App\Models\ChangeState;
use App\Models\Errand;
use App\Models\ErrandState;
use App\Work\TaskName;

final class CountFiles extends ErrandTask
{
    public function __construct(
        private readonly ChangesByHand $changes,
        private readonly ChangeFiles $files,
    ) {
    }

    public static function title(): string
    {
        return 'Counting what lies in it';
    }

    protected function do(Errand $errand): ?ErrandResult
    {
        $change = ChangeFiles::change($errand) ?? throw self::removed();
        try {
            $this->changes->count($change);
        } catch (\Throwable $failure) {
            $change->update([
                'state' => ChangeState::Refused,
                'trouble' => Problem::words($failure),
                'ended_at' => now(),
            ]);
            throw $failure;
        }
        if (ChangesByHand::needsLook($change->refresh())) {
            return new ErrandResult('Nothing was touched yet.', "/file-changes/$change->id");
        }
        // Nobody has to be asked anything; from here on it is not cancelled any more.
        $goesOn = Errand::whereKey($errand->id)
            ->where('state', ErrandState::Running)
            ->update(['kind' => TaskName::forTask(ChangeFiles::class)]) === 1;
        if (! $goesOn) {
            return null;
        }
        $this->changes->start($change, false);

        return new ErrandResult($this->files->done($change), $errand->given['folder'] ?? $errand->back);
    }
}
