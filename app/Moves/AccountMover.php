<?php

declare(strict_types=1);

namespace App\Moves;

use App\Accounts\AccountCheck;
use App\Failure\Problem;
use App\FtpUsers\FtpUsers;
use App\FtpUsers\NewFtpUser;
use App\Hosting\Connections;
use App\Models\Account;
use App\Models\Backup;
use App\Models\ChangeByHand;
use App\Models\ChangeState;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\FtpUserState;
use App\Models\Person;
use App\Models\RecordKind;
use App\Models\Site;
use App\Plans\MakePlan;
use App\Plans\Plans;
use App\Record\Record;
use App\Storage\RunFiles;
use App\Storage\SiteLockNames;
use App\Work\Tasks;
use Cellarium\Core\Connection\DirectoryPath;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\Locks;
use Illuminate\Support\Facades\DB;

/**
 * Makes what an account holds anew in another: its sites go there with their history and are filled by plans that bring
 * their newest backups back; its FTP users are made with new passwords. At the old host nothing is touched.
 *
 * Doing it again goes on where it was broken off: what is there already is left as it is.
 */
final readonly class AccountMover
{
    public function __construct(
        private AccountCheck $check,
        private Connections $connections,
        private RunFiles $files,
        private Plans $plans,
        private FtpUsers $ftpUsers,
        private Locks $locks,
    ) {
    }

    /**
     * @param  list<int>  $sites  numbers of those that are moved
     * @param  list<int>  $users  numbers of those that are made anew
     * @return array{sites: int, users: int, waits: int, troubles: list<string>} what is there now, how many users wait
     *     for a person at the provider, and what is not there
     *
     * @throws Problem before anything was made
     */
    public function carryOut(AccountMove $move, array $sites, array $users, ?Person $person): array
    {
        self::check($move->from, $move->to);
        // How users sign in is guessed from an account's first site, which may be another one in a moment.
        foreach ([$move->from, $move->to] as $account) {
            $account->login_rules === null && $account->update(['login_rules' => $account->rules()->toArray()]);
        }
        $done = ['users' => 0, 'waits' => 0, 'troubles' => []];
        $moved = [];
        foreach ($move->sites as $site) {
            if (in_array($site->site->id, $sites, true)) {
                try {
                    $this->site($move, $site, $person);
                    $moved[$site->site->id] = $site;
                } catch (\Throwable $failure) {
                    $done['troubles'][] = $site->site->domain.': '.self::words($failure);
                }
            }
        }
        foreach ($move->users as $user) {
            if (in_array($user->user->id, $users, true) && ! $user->isThere) {
                try {
                    self::reachesNothingLeft($move, $user, $moved);
                    $done[$this->user($move->to, $user, $person) ? 'users' : 'waits']++;
                } catch (\Throwable $failure) {
                    $done['troubles'][] = "$user->name: ".self::words($failure);
                }
            }
        }
        // Last: directories of users are there by now, and a plan is for what is there.
        array_map(fn (SiteMove $site) => $this->fill($site, $person), $moved);

        return ['sites' => count($moved)] + $done;
    }

    /**
     * @param  array<int, SiteMove>  $moved  by the number of the site
     *
     * @throws Problem where it reaches a site that has not gone there
     */
    private static function reachesNothingLeft(AccountMove $move, UserMove $user, array $moved): void
    {
        foreach ($move->sites as $site) {
            ! isset($moved[$site->site->id]) && $site->site->isReachedFrom($user->user->path()) && throw new Problem(
                "{$site->site->domain}, which it reaches, is not there. Make it once the site is.",
            );
        }
    }

    /** @throws Problem */
    public static function check(Account $from, Account $to): void
    {
        $from->is($to) && throw new Problem('This is the same account. Choose another one.');
        $from->client_id === $to->client_id || throw new Problem(
            "The account at $to->host belongs to another client. Choose one of {$from->client->name}.",
        );
        strcasecmp($from->host, $to->host) === 0 && $from->login === $to->login && throw new Problem(
            'Both lead to the same login at the same host. Choose another one.',
        );
    }

    private function site(AccountMove $move, SiteMove $one, ?Person $person): void
    {
        $site = $one->site;
        $one->objection === null || throw new Problem($one->objection);
        $puts = $one->puts();
        $puts === [] && throw new Problem('there is no verified backup to fill it from. Take one first.');
        $lock = $this->locks->acquire(
            ...SiteLockNames::forSite($site),
            ...SiteLockNames::ofAccount($move->to),
        ) ?? throw new Problem('work goes on there. Try again once it has ended.');
        try {
            self::isQuiet($site);
            $remote = $this->connections->remote($move->to);
            DirectoryPath::make($remote, $one->documentRoot());
            foreach ($one->mounts as $mount) {
                $mount['backup'] === null || DirectoryPath::make($remote, $mount['to']);
            }
            DB::transaction(fn () => $this->point($move, $one, $person));
            $this->files->forgetKnown($site);
        } finally {
            $lock->release();
        }
    }

    private function fill(SiteMove $one, ?Person $person): void
    {
        $site = $one->site->refresh()->load('account.client', 'account.sites', 'client');
        $this->askWhereItIs($site);
        foreach ($one->puts() as $backup) {
            $plan = $this->plans->orderRestoreBackup($backup->refresh()->setRelation('site', $site), $person);
            Tasks::order(MakePlan::class, $plan->id);
        }
    }

    /** Whether the new host answers for the name already, at its own address at least: its plans are proven by that. */
    private function askWhereItIs(Site $site): void
    {
        try {
            $this->check->proveRoot($site);
        } catch (RemoteFailure $failure) {
            logger()->info("Where $site->domain is served from is not known: {$failure->getMessage()}");
        }
    }

    /** The site, and where its history says that it begins; the files of both hosts stay as they are. */
    private function point(AccountMove $move, SiteMove $one, ?Person $person): void
    {
        $site = $one->site;
        $map = $move->map;
        $mapped = static fn (?string $directory): ?string => $directory === null
            ? null
            : ($map->of(RemotePath::fromString($directory)) ?? RemotePath::fromString($directory))->toString();
        foreach ([Backup::class => ['root'], Deployment::class => ['root', 'directory']] as $model => $columns) {
            foreach ($columns as $column) {
                $directories = $model::where('site_id', $site->id)->whereNotNull($column)->distinct()->pluck($column);
                $new = [];
                foreach ($directories as $directory) {
                    $new[(string) $directory] = (string) $mapped((string) $directory);
                }
                // All at once: one of them may become what another was.
                $new === [] || $model::where('site_id', $site->id)->whereNotNull($column)->update([
                    $column => DB::raw(self::cases($column, $new)),
                ]);
            }
        }
        foreach ($site->destinations as $destination) {
            $destination->update(['directory' => $mapped($destination->directory)]);
        }
        $site->stays()->create(['account_id' => $move->from->id, 'root' => (string) $one->from, 'until' => now()]);
        $site->unsetRelation('stays')->update([
            'account_id' => $move->to->id,
            'document_root' => $one->documentRoot()->toString(),
            'application_root' => $mapped($site->application_root),
            'mounts' => array_map(static fn (array $mount): array => [
                'path' => $mount['path'],
                'directory' => $mount['to']->toString(),
            ], $one->mounts),
            'candidates' => null,
            'php' => null,
            'token' => null,
            'root_proven_at' => null,
            'live_proven_at' => null,
            'placeholder' => null,
            // Until a proof of its document root shows that the name leads there.
            'leads_elsewhere' => true,
        ]);
        $site->setRelation('account', $move->to);
        Record::write(
            RecordKind::SiteMoved,
            "$site->domain goes from {$move->from->login} at {$move->from->host}, $one->from, to {$move->to->login} at "
                ."{$move->to->host}, $one->to; its files follow by a plan",
            $site,
            ['from_account' => $move->from->id],
            $person,
        );
    }

    /** @param  non-empty-array<string, string>  $new  by what it was */
    private static function cases(string $column, array $new): string
    {
        $quote = static fn (string $text): string => DB::getPdo()->quote($text);
        $cases = array_map(
            static fn (string $was, string $is): string => "WHEN {$quote($was)} THEN {$quote($is)}",
            array_map(strval(...), array_keys($new)),
            $new,
        );

        return "CASE `$column` ".implode(' ', $cases)." ELSE `$column` END";
    }

    /** @return bool false where a person makes it at the provider first */
    private function user(Account $to, UserMove $one, ?Person $person): bool
    {
        $one->objection === null || throw new Problem($one->objection);
        $user = $one->user;
        $made = $this->ftpUsers->open($to, new NewFtpUser(
            $one->name,
            $one->to ?? throw new Problem('nothing says where it would land.'),
            $user->space_limit,
            $user->ends,
            $user->closes_at,
            $user->ends_reason,
            $user->purpose,
            readOnly: $user->read_only,
            makesDirectory: true,
            person: $person,
        ));
        $made->refresh();
        $made->state === FtpUserState::Open || $made->trouble === null || throw new Problem($made->trouble);

        return $made->state === FtpUserState::Open;
    }

    /** @throws Problem where a run or a change by hand is not over */
    private static function isQuiet(Site $site): void
    {
        $isBusy = Deployment::where('site_id', $site->id)
            ->whereIn('state', [DeploymentState::Drafting, ...DeploymentState::GOING])
            ->exists()
            || ChangeByHand::where('site_id', $site->id)
                ->whereIn('state', [ChangeState::Counting, ChangeState::Waiting, ChangeState::Running])
                ->exists();
        $isBusy && throw new Problem(
            'a deployment or a change by hand is not over there. Try again once it has ended.',
        );
        // Their plans were made for the other host.
        Deployment::where(['site_id' => $site->id, 'state' => DeploymentState::Planned])
            ->update(['state' => DeploymentState::Cancelled]);
    }

    private static function words(\Throwable $failure): string
    {
        Problem::isExpected($failure) || throw $failure;

        return Problem::words($failure);
    }
}
