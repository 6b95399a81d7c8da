<?php

declare(strict_types=1);

namespace App\Plans;

use App\Errands\ErrandResult;
use App\Errands\ErrandTask;
use App\Files\FileEntry;
use App\Files\FilePlace;
use App\Files\RemoteCollector;
use App\Models\Errand;
use App\Models\Site;
use App\Work\Tasks;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Work\Urgency;

final class CopyElsewhere extends ErrandTask
{
    public function __construct(
        private readonly ManualUpload $uploadByHand,
        private readonly RemoteCollector $collector,
    ) {
    }

    public static function title(): string
    {
        return 'Fetching the files for the other site';
    }

    public static function urgency(): Urgency
    {
        return Urgency::Look;
    }

    protected function do(Errand $errand): ErrandResult
    {
        $place = FilePlace::ofErrand($errand) ?? throw self::removed();
        $given = $errand->given;
        $plan = $this->uploadByHand->copies(
            Site::with('account.client')->find((int) ($given['to_site'] ?? 0)) ?? throw self::removed(),
            RemotePath::fromString((string) $given['into']),
            $this->collector->fetch(
                $place,
                FileEntry::chosen($errand, $place) ?? throw self::removed(),
                self::untilCancelled($errand),
            ),
            ($given['moves'] ?? false) ? [
                'action' => $place->owner().'/file-changes',
                'at' => $place->at->toString(),
                'names' => $given['names'],
                'where' => "$place->at on ".($place->site->domain ?? $place->account->title()),
            ] : null,
            $errand->person,
        );
        Tasks::order(MakePlan::class, $plan->id);

        return new ErrandResult(
            'The files are fetched and compared with what is there; nothing is replaced yet.',
            "/deployments/$plan->id",
        );
    }
}
