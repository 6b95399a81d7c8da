<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Failure\Problem;
use App\Hosting\Connections;
use App\Models\Account;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use App\Models\RecordKind;
use App\Models\SharedDirectory;
use App\Models\Site;
use App\Record\Record;
use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\DocumentRoot\OtherLogin;
use Cellarium\Core\DocumentRoot\SharedRoot;
use Cellarium\Core\DocumentRoot\SharedRootProof;
use Cellarium\Core\Path\RemotePath;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Facades\DB;

/** Finds out which other accounts reach the document root of a site, and writes it down with both. */
final readonly class SharedRoots
{
    /** Accounts that are asked: each is a sign-in. */
    private const MOST = 20;

    public function __construct(private Connections $connections)
    {
    }

    /**
     * Accounts that may reach the same files: they serve the same domain; or they are at the same host, and of the
     * same client or one of the two is known as an FTP user of the other.
     *
     * @return Collection<int, Account>
     */
    public function accounts(Site $site): Collection
    {
        $account = $site->account;
        $hasDomain = static fn (Builder $sites) => $sites->where('domain', $site->domain);
        $hasLogin = static fn (Builder $users) => $users->where('login', $account->login);

        return Account::with('sites', 'ftpUsers')
            ->whereKeyNot($account->id)
            ->whereNull('trouble')
            ->where(static fn (Builder $either) => $either
                ->whereHas('sites', $hasDomain)
                ->orWhere(static fn (Builder $near) => $near
                    ->where(static fn (Builder $host) => $host->where('host', $account->host)->when(
                        $account->known_address !== null,
                        static fn (Builder $same) => $same->orWhere('known_address', $account->known_address),
                    ))
                    ->where(static fn (Builder $related) => $related->where('client_id', $account->client_id)
                        ->orWhereIn('login', $account->ftpUsers()->select('login'))
                        ->orWhereHas('ftpUsers', $hasLogin))))
            ->withExists(['sites as has_domain' => $hasDomain])
            ->orderByDesc('has_domain')
            ->orderByDesc('id')
            ->limit(self::MOST)
            ->get();
    }

    /**
     * Puts a token there and looks for it through the others. One that could not be asked keeps what is known of it.
     *
     * @param  Collection<int, Account>  $accounts
     * @param  string  $nonce  random letters and digits
     *
     * @throws RemoteFailure when the token could not be put there or not be removed
     */
    public function look(Site $site, RemoteDirectory $remote, Collection $accounts, string $nonce): void
    {
        $others = [];
        foreach ($accounts as $account) {
            try {
                $others[] = new OtherLogin(
                    $account->id,
                    $account->host,
                    $this->connections->remote($account),
                    SharedRootProof::candidates($site->root(), self::known($account, $site)),
                );
            } catch (Problem $problem) {
                logger()->info("{$account->title()} was not asked for a shared directory: {$problem->getMessage()}");
            }
        }
        $found = SharedRootProof::find($remote, $site->root(), $nonce, $others);
        foreach ($found as $shared) {
            $other = $accounts->find($shared->key);
            $shared->trouble === null
                ? $this->writeDown($site, $other, $shared)
                : self::noteTrouble($other, $shared->trouble);
        }
    }

    /** A refused password is tried once, and not again with the next root: hosts lock accounts out. */
    private static function noteTrouble(Account $other, RemoteFailure $failure): void
    {
        logger()->info("{$other->title()} could not be asked for a shared directory: {$failure->getMessage()}");
        if ($failure->reason === FailureReason::SignInRefused) {
            $other->update(['trouble' => $failure->reason->value, 'tried_at' => now()]);
        }
    }

    /** @return list<RemotePath> directories of the other account that may be this one */
    private static function known(Account $account, Site $site): array
    {
        $users = $account->ftpUsers->filter(
            static fn (FtpUser $user): bool => $user->login === $site->account->login
                && ! in_array($user->state, FtpUserState::ENDED, true),
        );
        $below = $site->root();
        $jails = $users->map(static fn (FtpUser $user): RemotePath => $user->path());
        $name = $below->name();
        $seen = array_filter(
            array_map(
                static fn (int|string $path): ?RemotePath => RemotePath::tryFromString((string) $path),
                array_keys($account->seen()->directories),
            ),
            static fn (?RemotePath $directory): bool => $directory !== null && $directory->name() === $name,
        );

        return [
            ...$account->sites->map(static fn (Site $other): RemotePath => $other->root()),
            ...$account->sites->map(static fn (Site $other): RemotePath => $other->applicationRoot()),
            ...$jails->map(static fn (RemotePath $jail): ?RemotePath => RemotePath::tryFromString(
                $jail->toString().$below->toString(),
            ))->filter(),
            ...array_slice(array_values($seen), 0, 10),
        ];
    }

    private function writeDown(Site $site, Account $other, SharedRoot $shared): void
    {
        $here = $site->root()->toString();
        $was = SharedDirectory::where(['account_id' => $site->account_id, 'other_id' => $other->id, 'path' => $here])
            ->first();
        DB::transaction(static function () use ($site, $other, $shared, $here): void {
            $two = [$site->account_id, $other->id];
            SharedDirectory::where(['account_id' => $two[0], 'other_id' => $two[1], 'path' => $here])->delete();
            SharedDirectory::where(['account_id' => $two[1], 'other_id' => $two[0], 'other_path' => $here])->delete();
            if ($shared->place === null) {
                return;
            }
            $there = $shared->place->toString();
            foreach ([[...$two, $here, $there], [...array_reverse($two), $there, $here]] as $row) {
                SharedDirectory::create(
                    array_combine(['account_id', 'other_id', 'path', 'other_path'], $row) + ['proven_at' => now()],
                );
            }
        });
        $now = $shared->place?->toString();
        $now === $was?->other_path || Record::write(
            RecordKind::DocumentRootProven,
            $now === null
                ? "$here of {$site->account->login} is no longer seen through $other->login at $other->host"
                : "A token put into $here as {$site->account->login} was seen in $now as $other->login at "
                    ."$other->host: one place, whose changes wait for one another",
            $site,
        );
    }
}
