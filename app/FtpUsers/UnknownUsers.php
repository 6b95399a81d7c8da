<?php

declare(strict_types=1);

namespace App\FtpUsers;

use App\Models\Account;
use App\Models\Closing;
use App\Models\FtpUserState;
use App\Models\RecordKind;
use App\Record\Record;
use Carbon\CarbonImmutable;
use Cellarium\Core\Hosting\HostedUser;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\Locks;

/** FTP users that a host has and nobody here made. */
final readonly class UnknownUsers
{
    /** Users of one account that are taken note of; no host has more, and a hostile one may say so. */
    private const MOST_TOLD = 500;

    public function __construct(private Locks $locks)
    {
    }

    /**
     * Takes note of open users that the host has and nobody here made: they can touch as much as any other.
     *
     * @param  list<HostedUser>  $told  all the host has
     */
    public function takeNote(Account $account, array $told): void
    {
        $lock = FtpUserLock::acquire($this->locks, $account->id);
        try {
            $known = $account->ftpUsers()->where('state', '!=', FtpUserState::Removed)->get()->keyBy('login');
            foreach (array_slice($told, 0, self::MOST_TOLD) as $user) {
                $mine = $known->get($user->login);
                if (
                    ! $user->open
                    || ($mine !== null && ! $mine->hasEnded())
                    || $mine?->action() !== null
                    || RemotePath::tryFromString($user->directory) === null
                ) {
                    continue;
                }
                if ($mine !== null) {
                    $mine->update([
                        'state' => FtpUserState::Made,
                        'directory' => RemotePath::fromString($user->directory)->toString(),
                        'ends' => Closing::Never,
                        'ends_reason' => 'it was opened again elsewhere',
                        'closes_at' => null,
                        'closed_at' => null,
                        'refusal_proven_at' => null,
                        'reach_proven_at' => null,
                        'found_at' => now(),
                    ]);
                    Record::write(
                        RecordKind::FtpUserFound,
                        "$user->login was opened again at $account->host, and not from here",
                        $account,
                    );

                    continue;
                }
                $account->ftpUsers()->create([
                    'login' => mb_substr($user->login, 0, 255),
                    'directory' => RemotePath::fromString($user->directory)->toString(),
                    'space_limit' => $user->spaceLimit,
                    'read_only' => $user->readOnly,
                    'state' => FtpUserState::Made,
                    'ends' => Closing::Never,
                    'ends_reason' => 'it was not made here',
                    'found_at' => now(),
                    'seen_use' => $user->lastUsed === null ? null : mb_substr($user->lastUsed, 0, 40),
                    'used_at' => $user->lastUsed === null
                        ? null
                        : rescue(
                            static fn (): CarbonImmutable => CarbonImmutable::parse($user->lastUsed)->min(now()),
                            null,
                            false,
                        ),
                ]);
                Record::write(
                    RecordKind::FtpUserFound,
                    "$account->host has an FTP user that was not made here: $user->login, landing in $user->directory",
                    $account,
                );
            }
        } finally {
            $lock->release();
        }
    }
}
