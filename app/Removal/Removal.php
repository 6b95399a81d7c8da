<?php

declare(strict_types=1);

namespace App\Removal;

use App\Failure\Problem;
use App\FtpUsers\FtpUsers;
use App\Models\Account;
use App\Models\Backup;
use App\Models\BackupState;
use App\Models\Client;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\FtpUser;
use App\Models\Person;
use App\Models\RecordKind;
use App\Models\RemovableKind;
use App\Models\Site;
use App\Record\Record;
use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;

/**
 * Removes clients, accounts and sites from Cellarium, with all that belongs to them; nothing is removed at a host.
 *
 * FTP users that are still open are closed and proven closed first, or are left open by somebody who names them. For
 * DAYS it can be undone; after that the secrets are erased. Backups stay for the time that was chosen, the record for
 * ever.
 */
final readonly class Removal
{
    /** For so long it can be undone. */
    public const DAYS = 30;

    public function __construct(private FtpUsers $users)
    {
    }

    /**
     * @param  list<int>  $close  FTP users that are closed first
     * @param  list<int>  $leave  FTP users that are left open knowingly
     * @param  int|null  $keepDays  how long backups stay; null for ever
     *
     * @throws Problem nothing was removed; those that were closed stay closed
     */
    public function remove(
        Client|Account|Site $subject,
        array $close,
        array $leave,
        ?int $keepDays,
        ?Person $person,
    ): void {
        $goes = RemovalImpact::forSubject($subject);
        $goes->objection() === null || throw new Problem($goes->objection());
        $undecided = $goes->openUsers->whereNotIn('id', [...$close, ...$leave]);
        if ($undecided->isNotEmpty()) {
            throw new Problem(
                "{$undecided->first()->login} is open and nobody said what becomes of it. Nothing was removed.",
            );
        }
        foreach ($goes->openUsers->whereIn('id', $close) as $user) {
            $this->close($user);
        }
        $left = $goes->openUsers->whereIn('id', $leave)->pluck('login');
        DB::transaction(function () use ($goes, $keepDays): void {
            $at = now();
            $this->mark($goes, $at, $keepDays === null ? null : $at->addDays($keepDays));
        });
        Record::write(
            RecordKind::Removed,
            "Removed {$goes->title()} with {$goes->words()}; nothing was removed at the host"
                .($left->isEmpty() ? '' : '. Left open knowingly: '.$left->join(', ')),
            $subject,
            person: $person,
        );
    }

    private function close(FtpUser $user): void
    {
        if ($this->users->close($user, 'its account is removed from Cellarium')) {
            return;
        }
        throw new Problem(
            $this->users->byHand($user)
                ? "$user->login has to be closed at the provider first; its page says how. Nothing was removed."
                : "$user->login could not be closed: $user->trouble Nothing was removed.",
        );
    }

    private function mark(RemovalImpact $goes, CarbonImmutable $at, ?CarbonImmutable $backupsUntil): void
    {
        $busy = Deployment::whereIn('site_id', $goes->sites->pluck('id'))
            ->whereIn('state', DeploymentState::GOING)
            ->lockForUpdate()
            ->exists();
        $busy && throw new Problem('A deployment has begun there meanwhile. Nothing was removed.');
        Site::whereKey($goes->sites->pluck('id'))->update(['removed_at' => $at, 'backups_until' => $backupsUntil]);
        Account::whereKey($goes->accounts->pluck('id'))->update(['removed_at' => $at]);
        $goes->kind === RemovableKind::Client && Client::whereKey($goes->subject->id)->update(['removed_at' => $at]);
    }

    /**
     * Brings back what was removed at once, all of it.
     *
     * @throws Problem nothing was brought back
     */
    public function undo(Client|Account|Site $subject, ?Person $person): void
    {
        $at = $subject->removed_at ?? throw new Problem('It is not removed, so there is nothing to undo.');
        $at->isAfter(now()->subDays(self::DAYS))
            || throw new Problem(
                'It was removed more than '.self::DAYS.' days ago, and its secrets are erased. Add it anew.',
            );
        $above = match (true) {
            $subject instanceof Site => $subject->account,
            $subject instanceof Account => $subject->client,
            default => null,
        };
        $above?->isRemoved() === true
            && ! $above->removed_at->equalTo($at)
            && throw new Problem('What it belongs to is removed as well. Undo that first.');
        try {
            DB::transaction(static function () use ($subject, $at): void {
                $accounts = match (true) {
                    $subject instanceof Client => Account::onlyTrashed()->where('client_id', $subject->id),
                    $subject instanceof Account => Account::onlyTrashed()->whereKey($subject->id),
                    default => Account::onlyTrashed()->whereKey([]),
                };
                $ids = $accounts->where('removed_at', $at)->pluck('id');
                $sites = Site::onlyTrashed()->where('removed_at', $at);
                $subject instanceof Site ? $sites->whereKey($subject->id) : $sites->whereIn('account_id', $ids);
                $sites->update(['removed_at' => null, 'backups_until' => null]);
                Account::onlyTrashed()->whereKey($ids)->update(['removed_at' => null]);
                $subject instanceof Client && $subject->restore();
            });
        } catch (\Illuminate\Database\UniqueConstraintViolationException) {
            throw new Problem('Its name is in use again: another was added since. Remove or rename that one first.');
        }
        Record::write(
            RecordKind::RemovalUndone,
            'Undone: the removal of '.RemovalImpact::name($subject).' on '.$at->format('j M Y H:i'),
            $subject,
            person: $person,
        );
    }

    /**
     * What has been removed for longer than it can be undone: secrets are erased, backups whose time is over expire.
     */
    public function expire(): void
    {
        $before = now()->subDays(self::DAYS);
        $gone = Account::onlyTrashed()->where('removed_at', '<', $before)->get();
        foreach ($gone as $account) {
            $account->update([
                'secret' => '',
                'next_secret' => null,
                'private_key' => null,
                'control_token' => null,
            ]);
        }
        FtpUser::whereIn('account_id', $gone->pluck('id'))->update(['secret' => null, 'next_secret' => null]);
        Backup::whereIn('site_id', Site::onlyTrashed()->where('backups_until', '<', now())->select('id'))
            ->where('state', BackupState::Verified)
            ->update(['state' => BackupState::Expired]);
    }
}
