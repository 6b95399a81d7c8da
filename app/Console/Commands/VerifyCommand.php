<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Models\DamagedContent;
use App\Text\Amount;
use App\Watch\StoreChecks;

final class VerifyCommand extends CellariumCommand
{
    protected const BY_ITSELF = true;

    protected $signature = 'cellarium:verify {--all : everything at once, and not only what is due tonight} {--json}';

    protected $description = 'Read what is stored back, and mend what is damaged from where it is still whole';

    public function handle(StoreChecks $checks): int
    {
        $checked = $checks->carryOut($this->option('all') === true);
        $damaged = DamagedContent::open()->get();
        if ($this->wantsJson()) {
            $this->json([
                'ok' => $damaged->isEmpty(),
                'read' => $checked->files,
                'bytes' => $checked->bytes,
                'sealed_anew' => $checked->sealedAnew,
                'found_damaged' => count($checked->damaged),
                'damaged' => $damaged->map(static fn (DamagedContent $one): array => [
                    'sha256' => $one->sha256,
                    'held_in' => $one->held_in,
                    'trouble' => $one->trouble,
                ])->all(),
            ]);
        } else {
            $this->components->info(
                Amount::files($checked->files).' read back, '.Amount::bytes($checked->bytes)
                    .($checked->sealedAnew === 0 ? '' : ", $checked->sealedAnew sealed with the key in use").'.',
            );
            foreach ($damaged as $one) {
                $this->components->error("Damaged: {$one->where()}. $one->trouble");
            }
        }

        return $damaged->isEmpty() ? self::PROVEN : self::REFUSED;
    }
}
