<?php

declare(strict_types=1);

namespace App\Errands;

use App\Failure\Problem;
use App\Hosting\HostShare;
use App\Models\Account;
use App\Models\Client;
use App\Models\Errand;
use App\Models\ErrandState;
use App\Models\FtpUser;
use App\Models\Site;
use App\Work\TaskName;
use App\Work\Tasks;
use Illuminate\Http\RedirectResponse;

/**
 * Hands what a page asks a server for to a worker, so that a host that does not answer keeps no page waiting.
 *
 * Most hosts answer at once: the page waits a moment, and only then shows that it is going on.
 */
final class Errands
{
    /**
     * @param  class-string<ErrandTask>  $task
     * @param  array<string, mixed>  $given  kept encrypted until the errand has ended
     */
    public static function start(
        string $task,
        string $back,
        Client|Account|Site|FtpUser|null $about,
        array $given = [],
    ): Errand {
        $errand = self::order($task, $back, $about, $given);
        self::await($errand);

        return $errand;
    }

    /**
     * Waits a moment for it, where a page may: of the processes for pages only some may wait, and for one host no more
     * than its share, so that the others go on answering.
     */
    public static function await(Errand $errand): void
    {
        if (self::isAnswered($errand)) {
            return;
        }
        $places = HostShare::ofPages()->take($errand->host() ?? '');
        $until = hrtime(true) + (float) config('cellarium.errand_seconds') * 1e9;
        while ($places !== null && ! self::isAnswered($errand) && hrtime(true) < $until) {
            usleep(25_000);
        }
        array_map(fclose(...), $places ?? []);
    }

    /** @phpstan-impure */
    private static function isAnswered(Errand $errand): bool
    {
        return ErrandTask::find($errand)::isReady($errand->refresh());
    }

    /**
     * The same without waiting for it.
     *
     * @param  class-string<ErrandTask>  $task
     * @param  array<string, mixed>  $given
     * @param  string|null  $fetchedFor  what it is found again by, see FetchedFile
     */
    public static function order(
        string $task,
        string $back,
        Client|Account|Site|FtpUser|null $about,
        array $given = [],
        ?string $fetchedFor = null,
    ): Errand {
        $errand = Errand::create([
            'kind' => TaskName::forTask($task),
            'state' => ErrandState::Waiting,
            'person_id' => auth()->id(),
            'client_id' => $about instanceof Client ? $about->id : null,
            'account_id' => $about instanceof Account ? $about->id : null,
            'site_id' => $about instanceof Site ? $about->id : null,
            'ftp_user_id' => $about instanceof FtpUser ? $about->id : null,
            'back' => $back,
            'given' => $given,
            'fetched_for' => $fetchedFor,
        ]);
        Tasks::order($task, $errand->id);

        return $errand;
    }

    /**
     * What has not begun is not begun any more; of what only looks, nothing that the server still answers is used.
     *
     * @throws Problem where it changes something at the host and has begun
     */
    public static function cancel(Errand $errand): void
    {
        $still = static fn (ErrandState $state): bool => Errand::where([
            'id' => $errand->id,
            'state' => $state,
        ])->update([
            'state' => ErrandState::Cancelled,
            'words' => $state === ErrandState::Waiting
                ? 'Cancelled before the server was asked anything.'
                : 'Cancelled. What the server still answers is not used.',
        ]) === 1;
        if (
            ! $still(ErrandState::Waiting)
            && (! ErrandTask::find($errand)::onlyLooks() || ! $still(ErrandState::Running))
            && ! $errand->refresh()->state->hasEnded()
        ) {
            throw new Problem(
                'This changes something at the host and has begun; it is not broken off half done. It ends by itself.',
            );
        }
        $errand->refresh();
    }

    /** To where it was asked from, with what came of it, or to the page that waits for it. */
    public static function answer(Errand $errand): RedirectResponse
    {
        $task = ErrandTask::find($errand);
        if (! $task::isReady($errand)) {
            return redirect("/errands/$errand->id");
        }
        $to = redirect($task::leadsTo($errand));

        return (string) $errand->words === ''
            ? $to
            : $to->with($errand->state === ErrandState::Done ? 'done' : 'trouble', $errand->words);
    }
}
