<?php

declare(strict_types=1);

namespace App\Errands;

use App\Failure\Problem;
use App\Hosting\HostShare;
use App\Models\Account;
use App\Models\Client;
use App\Models\Errand;
use App\Models\ErrandKind;
use App\Models\ErrandState;
use App\Models\FtpUser;
use App\Models\Site;
use Cellarium\Core\Path\RemotePath;
use Illuminate\Http\RedirectResponse;

/**
 * Hands what a page asks a server for to a worker, so that a host that does not answer keeps no page waiting.
 *
 * Most hosts answer at once: the page waits a moment, and only then shows that it is going on.
 */
final class Errands
{
    /** @param  array<string, mixed>  $given  kept encrypted until the errand has ended */
    public static function start(
        ErrandKind $kind,
        string $back,
        Client|Account|Site|FtpUser|null $about,
        array $given = [],
    ): Errand {
        $errand = self::order($kind, $back, $about, $given);
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
        return $errand->refresh()->state->hasEnded() || $errand->isDownloadable();
    }

    /**
     * The same without waiting for it.
     *
     * @param  array<string, mixed>  $given
     * @param  string|null  $fetchedFor  what it is found again by, see FetchedFile
     */
    public static function order(
        ErrandKind $kind,
        string $back,
        Client|Account|Site|FtpUser|null $about,
        array $given = [],
        ?string $fetchedFor = null,
    ): Errand {
        $errand = Errand::create([
            'kind' => $kind,
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
        RunErrand::order($errand);

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
            && (! $errand->kind->onlyLooks() || ! $still(ErrandState::Running))
            && ! $errand->refresh()->state->hasEnded()
        ) {
            throw new Problem(
                'This changes something at the host and has begun; it is not broken off half done. It ends by itself.',
            );
        }
        $errand->refresh();
    }

    /**
     * A directory that was not there may have been made since; where the host does not say in time, what was seen last
     * stays.
     */
    public static function lookAgain(Account $account, ?RemotePath $directory): void
    {
        if ($directory !== null && $account->seen()->lacks($directory)) {
            self::start(ErrandKind::LookAtTree, "/accounts/$account->id", $account, ['made' => $directory->toString()]);
            // Its relations stay as they were loaded.
            $account->forceFill(['tree' => Account::findOrFail($account->id)->tree])->syncOriginalAttribute('tree');
        }
    }

    /** To where it was asked from, with what came of it, or to the page that waits for it. */
    public static function answer(Errand $errand): RedirectResponse
    {
        if ($errand->isDownloadable()) {
            return redirect("/downloads/$errand->id");
        }
        if (! $errand->state->hasEnded()) {
            return redirect("/errands/$errand->id");
        }

        // What was fetched is shown there.
        return $errand->kind === ErrandKind::FetchFile && $errand->state === ErrandState::Done
            ? redirect($errand->back)
            : redirect($errand->back)->with($errand->state === ErrandState::Done ? 'done' : 'trouble', $errand->words);
    }
}
