<?php

declare(strict_types=1);

namespace App\Deployments;

use App\Hosting\Connections;
use App\Models\Deployment;
use App\Storage\RunFiles;
use App\Storage\RunLimits;
use Cellarium\Core\Backup\CollapseCheck;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Deployment\RunRefused;
use Cellarium\Core\Transfer\Cancelled;
use Cellarium\Core\Transfer\SequentialPool;
use Cellarium\Core\Transfer\Survey;
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

    /** @throws RemoteFailure|TransferFailed|RunRefused|SurveyStopped|Cancelled */
    public function of(Deployment $deployment): Survey
    {
        $root = $deployment->runPlace()->root;
        $pool = new SequentialPool($this->connections->remote($deployment->site->account));
        $survey = (new Surveyor(
            $pool,
            RunLimits::survey(),
            $deployment->exists ? $this->watching($deployment) : null,
        ))->survey($root);
        $known = $this->files->known($deployment->site, $root);
        $collapse = $deployment->collapse_accepted === true
            ? null
            : (new CollapseCheck($pool, RunLimits::collapseShare()))->look($root, $survey->manifest, $known->manifest);
        if ($collapse !== null) {
            throw RunRefused::collapsed($collapse);
        }

        return new Survey($known->applied($survey->manifest), $survey->temporary);
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
