<?php

declare(strict_types=1);

namespace App\Files;

use App\Errands\ErrandResult;
use App\Errands\ErrandTask;
use App\Models\Errand;
use App\Packages\Types;
use Cellarium\Core\Package\Type\InstalledPackages;
use Cellarium\Core\Work\Urgency;

final class CheckRights extends ErrandTask
{
    public function __construct(
        private readonly SiteRights $rights,
        private readonly Types $types,
    ) {
    }

    public static function title(): string
    {
        return 'Checking the permissions of the site';
    }

    public static function urgency(): Urgency
    {
        return Urgency::Look;
    }

    protected function do(Errand $errand): ErrandResult
    {
        $site = $errand->site ?? throw self::removed();
        $installed = InstalledPackages::written($site->installed, $this->types->types());

        return new ErrandResult(
            'Checked.',
            result: $this->rights->check($site, $installed->all, self::untilCancelled($errand)),
        );
    }
}
