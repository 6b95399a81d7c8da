<?php

declare(strict_types=1);

namespace App\Plans;

use App\Hosting\Connections;
use App\Models\Deployment;
use App\Storage\RunFiles;
use App\Storage\RunLimits;
use Cellarium\Core\Backup\ListingDoubted;
use Cellarium\Core\Backup\TrustedListing;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Transfer\Cancelled;
use Cellarium\Core\Transfer\SequentialPool;
use Cellarium\Core\Transfer\Surveyor;
use Cellarium\Core\Transfer\SurveyStopped;
use Cellarium\Core\Transfer\TransferFailed;

/** Looks at all of what a deployment compares, and takes over what is known of it. */
final readonly class SiteSurvey
{
    private const SECONDS_BETWEEN_LOOKS = 0.5;

    public function __construct(private Connections $connections, private RunFiles $files)
    {
    }

    /** @throws RemoteFailure|TransferFailed|ListingDoubted|SurveyStopped|Cancelled */
    public function of(Deployment $deployment): TrustedListing
    {
        $root = $deployment->runPlace()->root;
        $pool = new SequentialPool($this->connections->remote($deployment->site->account));
        $survey = (new Surveyor(
            $pool,
            RunLimits::survey(),
            $deployment->exists ? $this->watching($deployment) : null,
        ))->survey($root);
        $known = $this->files->known($deployment->site, $root);

        return TrustedListing::fromSurvey(
            $pool,
            $root,
            $survey,
            $known,
            RunLimits::collapseShare(),
            $deployment->collapse_accepted === true,
        )->knowing($known);
    }

    /**
     * @return \Closure(int, int): void writes down how far a look has come, a few times a second, and ends it when
     *     it was cancelled
     */
    private function watching(Deployment $deployment): \Closure
    {
        $next = 0.0;

        return static function (int $directories, int $entries) use ($deployment, &$next): void {
            if (hrtime(true) / 1e9 < $next) {
                return;
            }
            $next = hrtime(true) / 1e9 + self::SECONDS_BETWEEN_LOOKS;
            $deployment->update(['progress' => ['directories' => $directories, 'entries' => $entries]]);
            if (Deployment::where('id', $deployment->id)->whereNotNull('cancelled_at')->exists()) {
                throw Cancelled::byAPerson();
            }
        };
    }
}
