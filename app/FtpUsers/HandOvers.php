<?php

declare(strict_types=1);

namespace App\FtpUsers;

use App\Failure\Problem;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use App\Models\HandOver;
use App\Models\Person;
use App\Models\RecordKind;
use App\Record\Record;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Credential\SealedNote;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Hosting\SignInSettings;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;

/**
 * Hands the settings of an FTP user over, once: on the page of whoever made it, or by a link that opens a single time.
 */
final readonly class HandOvers
{
    public const HOURS = [1, 8, 24, 72, 168];

    /** @throws Problem when they were handed over already */
    public function show(FtpUser $user): SignInSettings
    {
        $settings = $this->take($user);
        Record::write(RecordKind::HandedOver, "Settings of $user->login handed over, shown once", $user->account);

        return $settings;
    }

    /**
     * @param  int  $hours  one of HOURS
     * @return Secret the token of the link; it is known to nobody afterwards
     *
     * @throws Problem when they were handed over already
     */
    public function link(FtpUser $user, int $hours, ?Person $person): Secret
    {
        in_array($hours, self::HOURS, true) || throw new Problem('Choose for how many hours the link is to work.');
        [$note, $token] = DB::transaction(function () use ($user, $hours, $person): array {
            $settings = $this->take($user);
            [$note, $token] = SealedNote::seal(
                json_encode(
                    [
                        'host' => $settings->host,
                        'port' => $settings->port,
                        'protocol' => $settings->protocol->value,
                        'login' => $settings->login,
                        'password' => $settings->password->reveal(),
                        'lands' => $settings->lands,
                        'address' => $settings->address,
                    ],
                    JSON_THROW_ON_ERROR,
                ),
            );
            $user
                ->handOvers()
                ->create([
                    'person_id' => $person?->id,
                    'finder' => $note->finder,
                    'sealed' => $note->sealed,
                    'expires_at' => now()->addHours($hours),
                ]);

            return [$note, $token];
        });
        Record::write(
            RecordKind::HandedOver,
            "Link to the settings of $user->login made, works once within $hours hours",
            $user->account,
        );

        return $token;
    }

    /** Null when there is no such link, it was used, withdrawn, or its time is over: whoever asks is told no more. */
    private function find(#[\SensitiveParameter] string $token): ?HandOver
    {
        $link = HandOver::with('ftpUser.account.client')->where('finder', SealedNote::finder($token))->first();

        return $link?->waits() === true && $link->ftpUser->state === FtpUserState::Open ? $link : null;
    }

    /** Opens a link; of two who try at once, one sees the settings. */
    public function open(#[\SensitiveParameter] string $token, string $by, Request $request): ?SignInSettings
    {
        $link = $this->find($token);
        $text = $link === null ? null : SealedNote::open((string) $link->sealed, $token);
        $opened = $text !== null
            && HandOver::where('id', $link->id)
                ->whereNotNull('sealed')
                ->update([
                    'sealed' => null,
                    'opened_at' => now(),
                    'opened_by' => mb_substr($by, 0, 100),
                    'opened_from' => $request->ip(),
                    'opened_with' => mb_substr(mb_scrub((string) $request->userAgent()), 0, 200),
                ]) === 1;
        if (! $opened) {
            return null;
        }
        Record::write(
            RecordKind::HandedOver,
            "Settings of {$link->ftpUser->login} opened by ".mb_substr($by, 0, 100).', from '.$request->ip(),
            $link->ftpUser->account,
        );
        $held = json_decode($text, true, 4, JSON_THROW_ON_ERROR);

        return new SignInSettings(
            $held['host'],
            $held['port'],
            Protocol::from($held['protocol']),
            $held['login'],
            new Secret($held['password']),
            $held['lands'],
            $held['address'],
        );
    }

    public function withdraw(HandOver $link): void
    {
        $link->load('ftpUser.account');
        if (
            HandOver::where('id', $link->id)
                ->whereNotNull('sealed')
                ->update(['sealed' => null, 'withdrawn_at' => now()]) === 1
        ) {
            Record::write(
                RecordKind::HandedOver,
                "Link to the settings of {$link->ftpUser->login} withdrawn",
                $link->ftpUser->account,
            );
        }
    }

    /** @throws Problem */
    private function take(FtpUser $user): SignInSettings
    {
        $settings = $user->settings();
        $taken = $user->canBeHandedOver()
            && $settings !== null
            && FtpUser::where('id', $user->id)
                ->whereNull('handed_over_at')
                ->update(['handed_over_at' => now()] + ($user->forgets ? ['secret' => null] : [])) === 1;
        if (! $taken) {
            throw new Problem(
                $user->handed_over_at === null && $user->state !== FtpUserState::Open
                    ? "$user->login is not open yet; its settings are handed over when its reach is proven."
                    : "The settings of $user->login were handed over already. Renew its password when they are lost.",
            );
        }
        $user->refresh();

        return $settings;
    }
}
