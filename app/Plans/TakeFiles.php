<?php

declare(strict_types=1);

namespace App\Plans;

use App\Errands\ErrandResult;
use App\Errands\ErrandTask;
use App\Models\Errand;
use App\Models\Site;
use App\Models\Upload;
use App\Packages\Uploads;
use App\Work\Tasks;
use Cellarium\Core\Path\RemotePath;

final class TakeFiles extends ErrandTask
{
    public function __construct(
        private readonly ManualUpload $uploadByHand,
        private readonly Uploads $uploads,
    ) {
    }

    public static function title(): string
    {
        return 'Comparing the files';
    }

    protected function do(Errand $errand): ErrandResult
    {
        $upload = Upload::find((int) ($errand->given['upload'] ?? 0)) ?? throw self::removed();
        $plan = $this->uploadByHand->archive(
            Site::with('account.client')->find($upload->site_id) ?? throw self::removed(),
            RemotePath::fromString((string) $upload->into),
            $this->uploads->whole($upload),
            $errand->person,
        );
        $this->uploads->empty($upload);
        Tasks::order(MakePlan::class, $plan->id);

        return new ErrandResult(
            'It is compared with what is on the server; nothing is replaced yet.',
            "/deployments/$plan->id",
        );
    }
}
