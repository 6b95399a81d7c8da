<?php

declare(strict_types=1);

namespace App\People;

use App\Failure\Problem;
use App\Models\OneTimeLink;
use App\Models\Person;
use App\Models\RecordKind;
use App\Record\Record;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\People\Role;
use Cellarium\Core\Words\Count;
use Illuminate\Support\Facades\DB;
use ParagonIE\ConstantTime\Base64UrlSafe;

/** The people who work here and their roles; each change is in the record, and ends what it takes away at once. */
final readonly class People
{
    public const LINK_HOURS = 72;

    private const TOKEN_BYTES = 32;

    /** @return Secret the token of the link by which they choose their password; known to nobody afterwards */
    public function invite(PersonFacts $facts): Secret
    {
        $person = new Person($facts->toArray());
        Person::where('email', $facts->email)->exists() && throw new Problem(
            "$facts->email belongs to somebody here already. Nobody was invited.",
        );

        return DB::transaction(function () use ($person): Secret {
            $person->save();
            $token = $this->link($person);
            Record::write(
                RecordKind::PersonInvited,
                "$person->name was invited as {$person->role->label()}".self::of($person),
                $person->client,
            );

            return $token;
        });
    }

    /**
     * @param  int  $revision  the one that was looked at; of two maintainers who change the same person, the second is
     *                         told
     *
     * @throws Problem when it was changed meanwhile, or nobody would be left who may change people
     */
    public function change(Person $person, PersonFacts $facts, int $revision): void
    {
        DB::transaction(function () use ($person, $facts, $revision): void {
            $this->hold($person, $revision);
            $facts->role === Role::Maintainer || $this->keepAMaintainer($person);
            $was = $person->role;
            $reach = [$person->role, $person->client_id, $person->may_fetch_backups];
            $person->fill($facts->toArray() + ['revision' => $revision + 1])->save();
            $reach === [$facts->role, $facts->clientId, $facts->mayFetchBackups] || SessionBond::endAll($person);
            Record::write(
                RecordKind::PersonChanged,
                $was === $facts->role
                    ? "$person->name was changed".self::of($person)
                    : "$person->name was {$was->label()} and is {$person->role->label()} now".self::of($person),
                $person->client,
            );
        });
    }

    /** Their sessions end at once; what is at work in their name goes on. */
    public function close(Person $person, int $revision): void
    {
        DB::transaction(function () use ($person, $revision): void {
            $this->hold($person, $revision);
            $this->keepAMaintainer($person);
            $person->update(['closed_at' => now(), 'revision' => $revision + 1]);
            $person->links()->delete();
            $ended = SessionBond::endAll($person);
            Record::write(
                RecordKind::PersonClosed,
                "$person->name was closed; ".Count::words($ended, 'session').' ended',
                $person->client,
            );
        });
    }

    public function open(Person $person, int $revision): void
    {
        DB::transaction(function () use ($person, $revision): void {
            $this->hold($person, $revision);
            $person->update(['closed_at' => null, 'revision' => $revision + 1]);
            Record::write(RecordKind::PersonOpened, "$person->name was opened again", $person->client);
        });
    }

    /** The old password opens nothing from now on. @return Secret the token of a link to choose another */
    public function renewPassword(Person $person, int $revision): Secret
    {
        return DB::transaction(function () use ($person, $revision): Secret {
            $this->hold($person, $revision);
            $person->update(['password' => null, 'revision' => $revision + 1]);
            SessionBond::endAll($person);
            $token = $this->link($person);
            Record::write(
                RecordKind::PersonPasswordRenewed,
                "The password of $person->name was renewed: the old one opens nothing, a link was made",
                $person->client,
            );

            return $token;
        });
    }

    /** For whoever lost their app and their recovery codes: the password alone opens, until they set up another. */
    public function dropSecondFactor(Person $person, int $revision): void
    {
        DB::transaction(function () use ($person, $revision): void {
            $this->hold($person, $revision);
            $person->update([
                'second_factor' => null,
                'second_factor_step' => 0,
                'recovery_codes' => [],
                'revision' => $revision + 1,
            ]);
            SessionBond::endAll($person);
            Record::write(
                RecordKind::SecondFactorDropped,
                "The second factor of $person->name was taken off",
                $person->client,
            );
        });
        SignInNotice::send($person, 'Your second factor for Cellarium was taken off by a maintainer.');
    }

    /** Whom a link is for; null when there is none, it was used, or its time is over: whoever asks is told no more. */
    public function invited(#[\SensitiveParameter] string $token): ?Person
    {
        $link = OneTimeLink::with('person.client')->where('hash', hash('sha256', $token))->first();

        return $link?->waits() === true && ! $link->person->isClosed() ? $link->person : null;
    }

    /** Of two who use a link at once, one chooses the password. @return bool whether it was chosen */
    public function choosePassword(#[\SensitiveParameter] string $token, #[\SensitiveParameter] string $password): bool
    {
        $person = $this->invited($token);

        // Both or neither: a link that was used up without a password would help nobody.
        return $person !== null && DB::transaction(function () use ($person, $token, $password): bool {
            $taken = OneTimeLink::where('hash', hash('sha256', $token))
                ->whereNull('used_at')
                ->where('expires_at', '>', now())
                ->update(['used_at' => now()]) === 1;
            $taken && $this->setPassword($person, $password);

            return $taken;
        });
    }

    /** All their sessions end, since each is bound to the password. */
    public function setPassword(Person $person, #[\SensitiveParameter] string $password): void
    {
        $person->update(['password' => $password]);
        $person->links()->whereNull('used_at')->delete();
        Record::write(RecordKind::PasswordChosen, "$person->name chose a password", $person->client, person: $person);
        SignInNotice::send($person, 'Your password for Cellarium was changed.');
    }

    /** The ones made before open nothing any more. */
    private function link(Person $person): Secret
    {
        $token = Base64UrlSafe::encodeUnpadded(random_bytes(self::TOKEN_BYTES));
        $person->links()->whereNull('used_at')->delete();
        $person->links()->create([
            'hash' => hash('sha256', $token),
            'expires_at' => now()->addHours(self::LINK_HOURS),
        ]);

        return new Secret($token);
    }

    private function hold(Person $person, int $revision): void
    {
        $now = Person::lockForUpdate()->findOrFail($person->id);
        $now->revision === $revision || throw new Problem(
            "$now->name was changed by somebody else since you opened this page. Nothing was changed now; look at it "
                .'anew and decide again.',
        );
    }

    private function keepAMaintainer(Person $person): void
    {
        if ($person->role !== Role::Maintainer) {
            return;
        }
        $others = Person::open()
            ->where('role', Role::Maintainer)
            ->whereNotNull('password')
            ->whereKeyNot($person->id)
            ->lockForUpdate()
            ->count();
        $others > 0 || throw new Problem(
            "$person->name is the last maintainer who can sign in, so somebody would have to use the console to open "
                .'anything again. Make another maintainer first. Nothing was changed.',
        );
    }

    private static function of(Person $person): string
    {
        return $person->role === Role::ClientsPerson ? " of {$person->client?->name}" : '';
    }
}
