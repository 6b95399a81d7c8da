<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Failure\Problem;
use App\Files\CarryOutByHand;
use App\Files\ChangeAsked;
use App\Files\ChangesByHand;
use App\Files\FilePlace;
use App\Hosting\Connections;
use App\Models\ChangeState;
use App\Models\FileAction;
use Cellarium\Core\File\Rights;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Transfer\Surveyor;

final class ChmodCommand extends CellariumCommand
{
    protected $signature = 'cellarium:chmod {site : the domain} {mode : three digits, 644 say} '
        .'{path : a file or folder, from where the site begins} {--below : of a folder, all that lies in it too} '
        .'{--folders= : digits for folders; without it folders stay, unless the path is one} {--json}';

    protected $description = 'Set the permissions of a file or folder of a site';

    public function handle(Connections $connections, ChangesByHand $changes, CarryOutByHand $carryOut): int
    {
        $site = $this->siteNamed((string) $this->argument('site'));
        $path = RelativePath::fromString(trim((string) $this->argument('path'), '/'));
        $file = FilePlace::ofSite($site, $path->toString());
        $found = $connections->remote($site->account)->stat($file->at)
            ?? throw new Problem("$file->at is not there. Look at its folder with cellarium:ls.");
        $entry = Surveyor::entry(RelativePath::fromString(ltrim($file->at->toString(), '/')), $found);
        $mode = self::mode((string) $this->argument('mode'));
        $given = $this->option('folders');
        $folders = is_string($given) ? self::mode($given) : null;
        $below = (bool) $this->option('below');
        $change = $changes->order(
            $file->at($file->at->parent()) ?? $file,
            [$entry],
            new ChangeAsked(
                FileAction::SetModes,
                files: $mode,
                directories: $below ? $folders : $folders ?? $mode,
                below: $below,
            ),
        );
        if ($change->state === ChangeState::Counting) {
            $changes->count($change);
            $change->refresh()->update(['state' => ChangeState::Waiting]);
        }
        $done = $carryOut->carryOut($change);
        if ($done->state !== ChangeState::Done) {
            return $this->refuse("$done->title: {$done->state->label()}. $done->trouble");
        }
        $refused = $done->versions()->where('mode_refused', true)->count();
        $this->wantsJson()
            ? $this->json([
                'ok' => true,
                'change' => $done->id,
                'set' => $done->done - $refused,
                'not_set_by_the_server' => $refused,
            ])
            : $this->components->info("$done->title: $done->done set".($refused > 0 ? ", $refused not taken" : '').'.');

        return self::PROVEN;
    }

    private static function mode(string $digits): int
    {
        return Rights::parse($digits) ?? throw new Problem('Permissions are three digits from 0 to 7, like 644.');
    }
}
