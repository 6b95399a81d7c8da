<?php

declare(strict_types=1);

namespace App\Runs;

use App\Errands\ErrandResult;
use App\Errands\ErrandTask;
use App\Models\Errand;
use Cellarium\Core\Work\Urgency;

final class ProveLive extends ErrandTask
{
    public function __construct(private readonly LaterProof $proof)
    {
    }

    public static function title(): string
    {
        return 'Asking as visitors do';
    }

    public static function urgency(): Urgency
    {
        return Urgency::Look;
    }

    protected function do(Errand $errand): ErrandResult
    {
        return new ErrandResult($this->proof->prove($errand->site ?? throw self::removed()));
    }
}
