<?php

declare(strict_types=1);

namespace App\Files;

use App\Errands\ErrandResult;
use App\Errands\ErrandTask;
use App\Models\Errand;
use App\Models\ErrandState;
use Cellarium\Core\Work\Urgency;

/** A download in a worker: what it holds is sent while it comes, see Downloads. */
final class Download extends ErrandTask
{
    public function __construct(private readonly Downloads $downloads)
    {
    }

    public static function title(): string
    {
        return 'Preparing the download';
    }

    public static function urgency(): Urgency
    {
        return Urgency::Download;
    }

    public static function waitsFor(): string
    {
        return 'The server is asked what lies there. The download begins here by itself once that is known.';
    }

    public static function isTakenHere(): bool
    {
        return true;
    }

    public static function isReady(Errand $errand): bool
    {
        return $errand->state->hasEnded() || self::isSendable($errand);
    }

    public static function leadsTo(Errand $errand): string
    {
        return self::isSendable($errand) ? "/downloads/$errand->id" : $errand->back;
    }

    /** Whether its bytes can be sent from the first on: all of them are here, or how many there will be is known. */
    public static function isSendable(Errand $errand): bool
    {
        return $errand->state === ErrandState::Done
            || ($errand->state === ErrandState::Running && ($errand->result['size'] ?? null) !== null);
    }

    protected function do(Errand $errand): ErrandResult
    {
        $place = FilePlace::ofErrand($errand) ?? throw self::removed();

        return new ErrandResult('', result: $this->downloads->fetch(
            $errand,
            $place,
            FileEntry::chosen($errand, $place) ?? throw self::removed(),
            self::untilCancelled($errand),
        ));
    }
}
