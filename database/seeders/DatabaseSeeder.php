<?php

declare(strict_types=1);

namespace Database\Seeders;

use App\Accounts\AccountCheck;
use App\Backups\Backups;
use App\Backups\Rehearsals;
use App\FtpUsers\FtpUsers;
use App\FtpUsers\NewFtpUser;
use App\Hosting\Connections;
use App\Models\Account;
use App\Models\Backup;
use App\Models\BackupReason;
use App\Models\BackupState;
use App\Models\Client;
use App\Models\ClientRequest;
use App\Models\ClientRequestKind;
use App\Models\Closing;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use App\Models\Person;
use App\Models\RecordKind;
use App\Models\Site;
use App\Packages\Packages;
use App\Plans\Plans;
use App\Record\Record;
use App\Runs\Runner;
use Carbon\CarbonImmutable;
use Cellarium\Core\Connection\Pin;
use Cellarium\Core\Connection\PrivateKey;
use Cellarium\Core\Connection\RemoteText;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Hosting\LoginRules;
use Cellarium\Core\Manifest\StartPages;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\People\Role;
use Illuminate\Database\Seeder;
use RuntimeException;

/**
 * The demo world: the agency, its clients and accounts, and the past weeks, made by really running every backup and
 * deployment against the stand-in host with the clock set back.
 */
final class DatabaseSeeder extends Seeder
{
    /** Days ago and hour at which each version of a site was deployed; sites not named here were never deployed to. */
    private const HISTORY = [
        'saltmarshferries.example' => ['winter-timetable' => ['2.3.0' => [33, 9]]],
        'book.saltmarshferries.example' => ['ferry-booking' => ['1.0' => [41, 10], '1.1' => [5, 15]]],
        'staff.saltmarshferries.example' => ['crew-room' => ['0.9' => [12, 11]]],
        'gannetrocklight.example' => ['gannet-rock' => ['3.1' => [6, 14]]],
        'shop.gannetrocklight.example' => ['lamp-room-shop' => ['1.2' => [4, 16]]],
        'bellwetherclockworks.example' => ['bellwether' => ['4.0' => [27, 9], '4.1' => [3, 10]]],
        'repairs.bellwetherclockworks.example' => ['bellwether-repairs' => ['1.0' => [2, 13]]],
        'ostreabeds.example' => ['ostrea' => ['2.0' => [9, 10]]],
        'tours.ostreabeds.example' => ['ostrea-tours' => ['1.0' => [6, 11]]],
        'thriftcampion.example' => ['thrift-campion' => ['5.0' => [24, 9], '5.1' => [1, 17]]],
        'wholesale.thriftcampion.example' => ['seed-wholesale' => ['1.3' => [5, 9]]],
        'catalogue.thriftcampion.example' => ['seed-list' => ['2026.1' => [2, 15]]],
        'whimbrelpost.example' => ['whimbrel' => ['1.0' => [6, 12]]],
        'samphiresmokehouse.example' => ['samphire' => ['2.2' => [3, 14]]],
        'curlewpoint.example' => ['curlew-point' => ['1.5' => [4, 20]]],
        'eelgrasskayak.example' => ['eelgrass' => ['1.0' => [19, 10]]],
        'berths.kelpieboatyard.example' => ['berth-book' => ['1.0' => [5, 13]]],
        'teaselmill.example' => ['quaylight' => ['2.4' => [8, 11]], 'shore' => ['1.2' => [7, 15]]],
    ];

    /** Days ago at which a backup was taken beside the deployments. */
    private const BACKUPS = [
        'saltmarshferries.example' => [8, 1],
        'ostreabeds.example' => [2],
        'gannetrocklight.example' => [13],
        'kelpieboatyard.example' => [16],
        'eelgrasskayak.example' => [5],
    ];

    /**
     * @var list<array{string, string, string, string, int, Closing, string, int|null}> domain, name, directory,
     *     purpose, days ago made, how it ends, until when or why, days ago used
     */
    private const FTP_USERS = [
        [
            'ostreabeds.example',
            'photo-mona',
            '/www/ostreabeds.example/img',
            'pictures of the autumn beds',
            2,
            Closing::AtTime,
            '+9 days',
            1,
        ],
        [
            'ostreabeds.example',
            'glaze-temp',
            '/www',
            'one afternoon, the kiln people',
            4,
            Closing::AtTime,
            '+6 hours',
            4,
        ],
        [
            'bellwetherclockworks.example',
            'dial-room',
            '/www/archive.bellwetherclockworks.example',
            'scans of the painted dials',
            6,
            Closing::AtTime,
            '+20 days',
            5,
        ],
        [
            'bellwetherclockworks.example',
            'bell-and-clock',
            '/www',
            'both sites, until the ringers have their own account',
            40,
            Closing::Never,
            'the ringers share this account until spring',
            38,
        ],
        [
            'samphiresmokehouse.example',
            'till',
            '/public_html',
            'the till writes its price list',
            45,
            Closing::Never,
            'the till writes the price list every night',
            41,
        ],
        [
            'gannetrocklight.example',
            'tours-crew',
            '/www/gannetrocklight.example',
            'a day of corrections',
            9,
            Closing::AtTime,
            '+8 hours',
            null,
        ],
        [
            'burnetinn.example',
            'menu',
            '/www/burnetinn.example',
            'the menu of the week',
            1,
            Closing::AtTime,
            '+6 days',
            null,
        ],
    ];

    public function run(AccountCheck $check, FtpUsers $ftpUsers): void
    {
        config(['cellarium.connections' => 1]); // Starting more workers would take longer than these small sites do.
        $this->setClock(CarbonImmutable::now()->subDays(48)->setTime(9, 12));
        $person = Person::create([
            'name' => 'Rowan Aldous',
            'email' => 'aldous@marramtide.example',
            'password' => 'slow-tide-lantern',
            'role' => Role::Maintainer,
        ]);
        Person::create([
            'name' => 'Wren Tideway',
            'email' => 'tideway@marramtide.example',
            'password' => 'quiet-harbour-oar',
            'role' => Role::Helper,
        ]);
        $this->takeOn();
        CarbonImmutable::setTestNow();
        $moments = [...$this->moments($person, $ftpUsers), ...$this->clientsPerson()];
        $moments[] = [
            CarbonImmutable::now()->subHours(2),
            static fn () => app(Packages::class)->take(
                config('cellarium.var').'/demo/packages/thrift-campion-5.2-rc1.zip',
                'thrift-campion-5.2-rc1.zip',
            ),
        ];
        $moments[] = [CarbonImmutable::now()->subHours(5), $this->somebodyAtTheFerries(...)];
        $moments[] = [CarbonImmutable::now()->subMinutes(40), fn () => $this->planFerries($person)];
        foreach (['quaylight-2.4.zip', 'quaylight-2.5.zip', 'shore-1.2.zip', 'tides-1.0.zip'] as $number => $file) {
            $moments[] = [
                CarbonImmutable::now()->subDays(9)->addHours($number),
                static fn () => app(Packages::class)->take(config('cellarium.var')."/demo/packages/$file", $file),
            ];
        }
        usort($moments, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        foreach ($moments as [$at, $work]) {
            $this->setClock($at);
            $work();
        }
        CarbonImmutable::setTestNow();
        foreach (Account::with('client', 'sites')->get() as $account) {
            $check->connect($account)->holds()
                || throw new RuntimeException("The demo account $account->login does not connect.");
        }
    }

    /** Changes the timetables on the server, over the account's own login and without Cellarium. */
    private function somebodyAtTheFerries(): void
    {
        $site = $this->site('saltmarshferries.example');
        $remote = app(Connections::class)->remote($site->account);
        $page = $site->root()->join(RelativePath::fromString('timetables/winter.html'));
        $text = str_replace(
            '</main>',
            "<p>From 1 December the last boat sails at 17:40.</p>\n</main>",
            (string) RemoteText::read($remote, $page, 100_000),
        );
        $source = fopen('php://memory', 'w+b');
        $source === false && throw new RuntimeException('There is no memory for a page.');
        fwrite($source, $text);
        rewind($source);
        $remote->write($page, $source, strlen($text));
        $remote->remove($site->root()->join(RelativePath::fromString('timetables/summer.html')));
    }

    /** A plan that waits, since it would undo what somebody changed there. */
    private function planFerries(Person $person): void
    {
        $file = 'winter-timetable-2.4.0.zip';
        app(Plans::class)->deploy(
            $this->site('saltmarshferries.example'),
            app(Packages::class)->take(config('cellarium.var')."/demo/packages/$file", $file),
            null,
            $person,
        );
    }

    /**
     * Somebody of a client, who has asked for two things, one of which was answered.
     *
     * @return list<array{CarbonImmutable, \Closure(): void}>
     */
    private function clientsPerson(): array
    {
        $person = Person::create([
            'name' => 'Maud Ostler',
            'email' => 'ostler@ostreabeds.example',
            'password' => 'low-water-basket',
            'role' => Role::ClientsPerson,
            'client_id' => Client::where('name', 'Ostrea Oyster Beds')->firstOrFail()->id,
            'may_fetch_backups' => true,
        ]);

        return [
            [
                CarbonImmutable::now()->subDays(3)->setTime(10, 5),
                fn () => $this->asks(
                    $person,
                    'tours.ostreabeds.example',
                    ClientRequestKind::Change,
                    'The Sunday tours start at ten from now on, not at eleven.',
                ),
            ],
            [
                CarbonImmutable::now()->subDays(2)->setTime(9, 30),
                static function () use ($person): void {
                    $asked = ClientRequest::where('person_id', $person->id)->firstOrFail();
                    $helper = Person::where('role', Role::Helper)->firstOrFail();
                    $asked->update([
                        'answered_at' => now(),
                        'answered_by' => $helper->id,
                        'answer' => 'Done; the page says ten o’clock.',
                    ]);
                    Record::write(
                        RecordKind::Answered,
                        "What $person->name asked for was answered: $asked->answer",
                        $asked->site,
                        person: $helper,
                    );
                },
            ],
            [
                CarbonImmutable::now()->subHours(3),
                fn () => $this->asks(
                    $person,
                    'ostreabeds.example',
                    ClientRequestKind::FtpUser,
                    'Our photographer brings pictures of the winter beds and needs the folder img for a week.',
                ),
            ],
        ];
    }

    private function asks(Person $person, string $domain, ClientRequestKind $kind, string $words): void
    {
        $site = Site::where('domain', $domain)->firstOrFail();
        ClientRequest::create([
            'client_id' => $person->client_id,
            'person_id' => $person->id,
            'site_id' => $site->id,
            'kind' => $kind,
            'words' => $words,
        ]);
        Record::write(
            RecordKind::Asked,
            "$person->name asked for {$kind->label()}: $words",
            $site,
            person: $person,
        );
    }

    private function takeOn(): void
    {
        $check = app(AccountCheck::class);
        $web = (int) config('cellarium.standin.web_port');
        $world = json_decode((string) file_get_contents(base_path('demo/world.json')), true, 16, JSON_THROW_ON_ERROR);
        foreach ($world['accounts'] as $row) {
            $client = Client::firstOrCreate(
                ['name' => $row['client']],
                ['colour' => $row['colour'], 'group' => $row['group']],
            );
            $account = $client->accounts()->create([
                'company' => $row['company'],
                'host' => $row['host'],
                'port' => (int) config('cellarium.standin.ftp_port'),
                'protocol' => $row['protocol'],
                'login' => $row['login'],
                'secret' => $row['password'],
                'control_url' => 'http://127.0.0.1:'.config('cellarium.standin.control_port'),
                'control_token' => $row['token'],
            ]);
            isset($row['ssh']) && $account->fill($this->ssh($row))->bindSecrets()->save();
            foreach ($row['sites'] as $site) {
                $owner = isset($site['client'])
                    ? Client::firstOrCreate(
                        ['name' => $site['client']],
                        ['colour' => $site['colour'], 'group' => $site['group']],
                    )
                    : null;
                $account->sites()->create([
                    'client_id' => $owner?->id,
                    'domain' => $site['domain'],
                    'base_url' => "http://{$site['domain']}:$web",
                    'document_root' => $site['document_root'],
                    'start_pages' => StartPages::USUAL,
                    'kept' => ['uploads/'],
                ]);
            }
            $check->connect($account->load('client', 'sites'));
        }
    }

    /**
     * By SFTP, with the server's key accepted; this company's SSH hosts have no control service.
     *
     * @param  array<string, mixed>  $row
     * @return array<string, mixed>
     */
    private function ssh(array $row): array
    {
        $own = config('cellarium.var').'/standin/ssh';
        $blob = base64_decode(explode(' ', (string) file_get_contents("$own/host.pub"))[1], true);
        $values = [
            'port' => (int) config('cellarium.standin.ssh_port'),
            'pin' => Pin::ofHostKey((string) $blob)->toArray(),
            'control_url' => null,
            'control_token' => null,
            // FTP users sign in at the FTP service of the same host.
            'ftp_protocol' => 'ftps',
            'ftp_port' => (int) config('cellarium.standin.ftp_port'),
            'login_rules' => LoginRules::fromForm("{name}@{$row['sites'][0]['domain']}")->toArray(),
        ];
        if ($row['ssh'] === 'key') {
            $key = PrivateKey::read((string) file_get_contents("$own/{$row['login']}"), new Secret(''));
            $values += [
                'secret' => '',
                'private_key' => $key->open->reveal(),
                'key_kind' => $key->kind,
                'key_fingerprint' => $key->fingerprint,
            ];
        }

        return $values;
    }

    /** The clock is set back and goes on from there. */
    private function setClock(CarbonImmutable $at): void
    {
        $set = hrtime(true);
        CarbonImmutable::setTestNow(
            static fn (): CarbonImmutable => $at->addMicroseconds(intdiv(hrtime(true) - $set, 1000)),
        );
    }

    /** @return list<array{CarbonImmutable, \Closure(): void}> what happened when */
    private function moments(Person $person, FtpUsers $ftpUsers): array
    {
        $moments = [];
        foreach (self::HISTORY as $domain => $packages) {
            foreach ($packages as $name => $versions) {
                foreach ($versions as $version => [$days, $hour]) {
                    $moments[] = [
                        $this->at($days, $hour, $domain),
                        fn () => $this->deploy($domain, "$name-$version.zip", $person),
                    ];
                }
            }
        }
        foreach (self::BACKUPS as $domain => $list) {
            foreach ($list as $days) {
                $moments[] = [$this->at($days, 7, $domain), fn () => $this->backup($domain, $person)];
            }
        }
        $moments[] = [$this->at(3, 6, 'rehearsal'), fn () => $this->rehearse('saltmarshferries.example')];
        $moments[] = [$this->at(4, 6, 'rehearsal'), fn () => $this->rehearse('eelgrasskayak.example')];
        foreach (self::FTP_USERS as $user) {
            $at = $this->at($user[4], 12, $user[1]);
            $moments[] = [$at, fn () => $this->openUser($user, $at, $person, $ftpUsers)];
        }
        $moments[] = [
            $this->at(9, 20, 'tours-crew'),
            fn () => $ftpUsers->close($this->user('tours-crew@gannetrocklight.example'), 'its time has come'),
        ];
        $moments[] = [
            $this->at(1, 9, 'choir-hymns'),
            fn () => $ftpUsers->begin(
                $this->site('lanternstreetchoir.example')->account,
                new NewFtpUser(
                    'choir-hymns',
                    RemotePath::fromString('/htdocs'),
                    5_000_000,
                    Closing::WithJob,
                    purpose: 'the new hymn sheets',
                    person: $person,
                ),
            ),
        ];
        $moments[] = [
            $this->at(3, 18, 'glaze-temp'), // This host says that it is closed and lets it in all the same.
            fn () => $ftpUsers->close($this->user('glaze-temp@ostreabeds.example'), 'its time has come'),
        ];

        return $moments;
    }

    private function user(string $login): FtpUser
    {
        return FtpUser::with('account.client', 'account.sites')->where('login', $login)->firstOrFail();
    }

    private function at(int $days, int $hour, string $name): CarbonImmutable
    {
        $now = CarbonImmutable::now();
        $at = $now->subDays($days)->setTime($hour, crc32($name) % 60);

        return $at->isAfter($now) ? $now->subMinutes(10) : $at;
    }

    /** @param  array{string, string, string, string, int, Closing, string, int|null}  $row  of FTP_USERS */
    private function openUser(array $row, CarbonImmutable $at, Person $person, FtpUsers $ftpUsers): void
    {
        [$domain, $name, $directory, $purpose, $days, $ends, $until, $used] = $row;
        $byTime = $ends === Closing::AtTime;
        $user = $ftpUsers->open(
            $this->site($domain)->account,
            new NewFtpUser(
                $name,
                RemotePath::fromString($directory),
                200_000_000,
                $ends,
                $byTime ? $at->modify($until) : null,
                $byTime ? '' : $until,
                $purpose,
                person: $person,
            ),
        );
        // One host keeps nobody in his directory; that is found out here as anywhere.
        $user->state === FtpUserState::Open
            || $domain === 'burnetinn.example'
            || throw new RuntimeException("$name: $user->trouble");
        $used === null || $user->update(['used_at' => now()->addDays($days - $used)]);
    }

    private function deploy(string $domain, string $file, Person $person): void
    {
        $package = app(Packages::class)->take(config('cellarium.var')."/demo/packages/$file", $file);
        $deployment = app(Plans::class)->deploy($this->site($domain), $package, null, $person);
        $deployment->update(['state' => DeploymentState::Queued]);
        app(Runner::class)->carryOut($deployment);
        $deployment->refresh()->state === DeploymentState::Proven
            || throw new RuntimeException("$domain: $deployment->trouble");
    }

    private function backup(string $domain, Person $person): void
    {
        $backup = Backup::create([
            'site_id' => $this->site($domain)->id,
            'person_id' => $person->id,
            'reason' => BackupReason::OnDemand,
            'state' => BackupState::Taking,
        ]);
        app(Backups::class)->take($backup);
        $backup->refresh()->state === BackupState::Verified || throw new RuntimeException("$domain: $backup->trouble");
    }

    private function rehearse(string $domain): void
    {
        $backup = Rehearsals::newest($this->site($domain)) ?? throw new RuntimeException("$domain: no backup");
        app(Rehearsals::class)->carryOut($backup);
        $trouble = $backup->refresh()->rehearsal['trouble'] ?? null;
        $trouble === null || throw new RuntimeException("$domain: $trouble");
    }

    private function site(string $domain): Site
    {
        return Site::with('account.client', 'account.sites')->where('domain', $domain)->firstOrFail();
    }
}
