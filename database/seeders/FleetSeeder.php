<?php

declare(strict_types=1);

namespace Database\Seeders;

use App\Models\BackupReason;
use Carbon\CarbonInterface;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Manifest\StartPages;
use Cellarium\Core\Package\Fit\PackageTraits;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Reference\Links;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\StoreSettings;
use Illuminate\Database\Seeder;
use Illuminate\Support\Facades\Crypt;
use Illuminate\Support\Facades\DB;

/**
 * A thousand accounts with three thousand sites, five thousand FTP users, tens of thousands of backups and three
 * thousand packages, to see how pages and commands hold up. No such hosts exist; lists and contents really lie there.
 */
final class FleetSeeder extends Seeder
{
    private const ACCOUNTS = 1000;

    private const SITES = 3000;

    private const HOSTS = 60;

    private const USERS_EACH = 5;

    private const BACKUPS_OF_SOME = 214;

    private const PACKAGES = 3000;

    private const FIRST = [
        'Marsh',
        'Dune',
        'Heron',
        'Osier',
        'Cobble',
        'Larch',
        'Teal',
        'Brine',
        'Wicket',
        'Sallow',
        'Finch',
        'Quill',
        'Tansy',
        'Otter',
        'Plover',
        'Rowan',
        'Sable',
        'Thyme',
        'Umber',
        'Vetch',
    ];

    private const SECOND = [
        'Bakery',
        'Surveyors',
        'Sailmakers',
        'Choir',
        'Dairy',
        'Clinic',
        'Ironworks',
        'Nursery',
        'Printers',
        'Ropewalk',
        'School',
        'Museum',
        'Cider',
        'Pottery',
        'Ferries',
    ];

    private const COLOURS = ['#1c6b64', '#8a5a0b', '#44587a', '#9c3530', '#5b6b2f', '#6f5a44', '#7a4468', '#2f6b8a'];

    private ContentStore $store;

    /**
     * @param  int  $backupsOfSome  how many every tenth site has
     * @param  int  $smaller  so many times fewer accounts, sites and packages
     */
    public function __construct(
        private readonly int $backupsOfSome = self::BACKUPS_OF_SOME,
        private readonly int $smaller = 1,
    ) {
    }

    public function run(): void
    {
        mt_srand(7);
        $this->store = app(StoreSettings::class)->bulk()->open();
        $this->store->begin();
        DB::transaction(function (): void {
            $clients = $this->clients();
            $accounts = $this->accounts($clients);
            $sites = $this->sites($accounts);
            $this->backups($sites);
            $this->deployments($sites, $this->packages());
            $this->ftpUsers($accounts);
            $this->store->flush();
        });
        // As the database does by itself within minutes, without which it guesses how to find rows.
        DB::select('ANALYZE TABLE clients, accounts, sites, backups, packages, deployments, ftp_users');
    }

    /**
     * @param  list<array<string, mixed>>  $rows
     * @return list<int> their numbers, in order
     */
    private function insert(string $table, array $rows): array
    {
        $before = (int) DB::table($table)->max('id');
        foreach (array_chunk($rows, 250) as $chunk) {
            DB::table($table)->insert($chunk);
        }

        return DB::table($table)
            ->where('id', '>', $before)
            ->orderBy('id')
            ->pluck('id')
            ->map(static fn ($id): int => (int) $id)
            ->all();
    }

    /** @return list<int> */
    private function clients(): array
    {
        $rows = [];
        foreach (self::FIRST as $i => $first) {
            foreach (self::SECOND as $j => $second) {
                $rows[] = [
                    'name' => "$first $second",
                    'colour' => self::COLOURS[($i + $j) % 8],
                    'group' => ['North coast', 'South coast', 'Inland', 'Islands', 'Trusts'][$i % 5],
                    'created_at' => now(),
                    'updated_at' => now(),
                ];
            }
        }

        return $this->insert('clients', $rows);
    }

    /**
     * @param  list<int>  $clients
     * @return list<int>
     */
    private function accounts(array $clients): array
    {
        $secret = Crypt::encryptString('no-such-account');
        $ladder = json_encode(
            [
                [
                    'name' => 'port',
                    'ok' => false,
                    'evidence' => 'Port 21 does not answer: Connection timed out',
                    'cause' => 'The host is down, the port is wrong, or a firewall is in between',
                    'next' => null,
                    'remedy' => null,
                    'identity' => null,
                    'reason' => 'unreachable',
                ],
            ],
            JSON_THROW_ON_ERROR,
        );
        $rows = [];
        for ($number = 0; $number < intdiv(self::ACCOUNTS, $this->smaller); $number++) {
            $down = $number % 53 === 0 || $number % self::HOSTS === 7;
            $reached = now()->subHours(mt_rand(0, 30));
            $rows[] = [
                'client_id' => $clients[$number % count($clients)],
                'company' => ['Harbourhost', 'Tern & Mast', 'Northquay'][$number % 3],
                'host' => 'srv'.$number % self::HOSTS.'.fleet.example',
                'port' => 21,
                'protocol' => Protocol::cases()[$number % 4]->value,
                'login' => "fleet$number",
                'secret' => $secret,
                'space_used' => mt_rand(1, 900) * 1_000_000,
                'space_limit' => 1_000_000_000,
                'tree' => '{"/":{"looked":true},"/htdocs":{"looked":true,"files":12}}',
                'reached_at' => $reached,
                'tried_at' => $reached,
                'trouble' => $down ? 'unreachable' : null,
                'ladder' => $down ? $ladder : '[]',
                'tags' => json_encode($number % 4 === 0 ? ['care plan'] : [], JSON_THROW_ON_ERROR),
                'notes' => $number % 9 === 0 ? 'asks for a call before anything is replaced' : null,
                'used_at' => $number % 40 === 0 ? $reached : null,
                'created_at' => now(),
                'updated_at' => now(),
            ];
        }

        return $this->insert('accounts', $rows);
    }

    /**
     * @param  list<int>  $accounts
     * @return list<int>
     */
    private function sites(array $accounts): array
    {
        $rows = [];
        for ($number = 0; $number < intdiv(self::SITES, $this->smaller); $number++) {
            $placeholder = $number % 97 === 0;
            $rows[] = [
                'account_id' => $accounts[$number % count($accounts)],
                'domain' => 'www'
                    .$number
                    .'.'
                    .strtolower(self::FIRST[$number % 20])
                    .'-'
                    .strtolower(self::SECOND[$number % 15])
                    .'.example',
                'base_url' => "https://www$number.fleet.example",
                'document_root' => '/htdocs',
                'start_pages' => json_encode(StartPages::USUAL, JSON_THROW_ON_ERROR),
                'kept' => '[]',
                'aliases' => '[]',
                'mounts' => '[]',
                'bytes' => mt_rand(1, 250) * 1_000_000,
                'placeholder' => $placeholder,
                'placeholder_file' => $placeholder ? 'index.html' : null,
                'root_proven_at' => now()->subDays(9),
                'live_proven_at' => $placeholder ? null : now()->subDays(mt_rand(0, 60)),
                'created_at' => now(),
                'updated_at' => now(),
            ];
        }

        return $this->insert('sites', $rows);
    }

    /**
     * Every tenth site has hundreds of them, as one that is backed up daily has within a year.
     *
     * @param  list<int>  $sites
     */
    private function backups(array $sites): void
    {
        $rows = [];
        foreach ($sites as $number => $site) {
            $pages = $this->pages("site $site");
            $list = (string) gzencode($pages->toText());
            for (
                $count = match (true) {
                    $number % 31 === 0 => 0,
                    $number % 10 === 1 => $this->backupsOfSome,
                    default => 3,
                };
                $count > 0;
                $count--
            ) {
                $at = now()->subDays($number % 23 === 0 ? 12 + $count : $count);
                $rows[] = [
                    'site_id' => $site,
                    'reason' => BackupReason::OnDemand,
                    'state' => 'verified',
                    'name' => self::shelved($list, $at),
                    'files' => 2,
                    'bytes' => $pages->bytes(),
                    'verified_at' => $at,
                    'created_at' => $at,
                    'updated_at' => $at,
                ];
            }
            if (count($rows) > 5000) {
                $this->insert('backups', $rows);
                $rows = [];
            }
        }
        $this->insert('backups', $rows);
        DB::statement(
            'UPDATE sites SET last_backup_at = (SELECT MAX(verified_at) FROM backups WHERE backups.site_id = sites.id '
                ."AND state = 'verified')",
        );
        DB::statement('UPDATE sites SET backup_promised_at = last_backup_at + INTERVAL 7 DAY, '
            .'rehearsal_promised_at = last_backup_at + INTERVAL 90 DAY');
    }

    /** Two files of it, whose contents are in the store. */
    private function pages(string $of): Manifest
    {
        $entries = [];
        foreach (['index.html' => '<h1>The start page of '
            ."$of</h1>\n", 'about.html' => "<h1>About</h1>\n"] as $path => $text) {
            $entries[] = new ManifestEntry(
                RelativePath::fromString($path),
                EntryKind::File,
                strlen($text),
                sha256: $this->store->put([$text])->sha256,
            );
        }

        return Manifest::fromEntries($entries);
    }

    /**
     * As BackupShelf keeps and claims lists, without waiting for the disk each time.
     *
     * @return string the backup's name
     */
    private static function shelved(string $list, CarbonInterface $at): string
    {
        $name = $at->format('Ymd-His').'-'.bin2hex(random_bytes(6));
        file_put_contents(config('cellarium.var')."/backups/$name.jsonl.gz", $list);

        return $name;
    }

    /** @return list<int> */
    private function packages(): array
    {
        $rows = [];
        for ($number = 0; $number < intdiv(self::PACKAGES, $this->smaller); $number++) {
            $name = strtolower(self::FIRST[$number % 20].'-'.self::SECOND[$number % 15]);
            $version = '1.'.intdiv($number, 20);
            $rows[] = [
                'name' => $name,
                'version' => $version,
                'file_name' => "$name-$version.zip",
                'sha256' => hash('sha256', "fleet $number"),
                'packed_bytes' => 400,
                'bytes' => 60,
                'files' => 2,
                'start_page' => 'index.html',
                'findings' => '[]',
                'stops' => false,
                'created_at' => now(),
                'updated_at' => now(),
            ];
        }

        $packages = $this->insert('packages', $rows);
        $manifests = array_map(
            fn (int $package): array => [
                'package_id' => $package,
                'manifest' => $this->pages("package $package")->toText(),
                'links' => (new Links([]))->toJson(),
                'traits' => json_encode((new PackageTraits([], [], []))->toArray()),
            ],
            $packages,
        );
        foreach (array_chunk($manifests, 250) as $chunk) {
            DB::table('package_manifests')->insert($chunk);
        }

        return $packages;
    }

    /**
     * @param  list<int>  $sites
     * @param  list<int>  $packages
     */
    private function deployments(array $sites, array $packages): void
    {
        $counts = (string) json_encode(
            array_fill_keys(['added', 'replaced', 'same', 'kept', 'set_aside'], ['files' => 1, 'bytes' => 1000]),
        );
        $rows = [];
        foreach ($sites as $number => $site) {
            for ($count = $number % 4; $count > 0; $count--) {
                $at = now()->subDays($count * 20);
                $rows[] = [
                    'site_id' => $site,
                    'kind' => 'deploy',
                    'package_id' => $packages[$number % count($packages)],
                    'state' => 'proven',
                    'policy' => '[]',
                    'counts' => $counts,
                    'planned_at' => $at,
                    'started_at' => $at,
                    'ended_at' => $at,
                    'created_at' => $at,
                    'updated_at' => $at,
                ];
            }
        }
        $this->insert('deployments', $rows);
        DB::statement(
            'UPDATE sites SET last_deployment_id = (SELECT MAX(id) FROM deployments WHERE deployments.site_id = '
                ."sites.id AND state = 'proven')",
        );
    }

    /** @param  list<int>  $accounts */
    private function ftpUsers(array $accounts): void
    {
        $rows = [];
        foreach ($accounts as $number => $account) {
            for ($count = 0; $count < self::USERS_EACH; $count++) {
                $made = now()->subDays(mt_rand(0, 90));
                $late = $number % 60 === 0 && $count === 0;
                $rows[] = [
                    'account_id' => $account,
                    'login' => "job$number-$count@fleet.example",
                    'directory' => $count === 0 && $number % 97 === 0
                        ? '/'
                        : '/htdocs'.($count < 2 ? '' : "/part$count"),
                    'purpose' => 'relaunch',
                    'state' => 'open',
                    'ends' => $count === 4 ? 'never' : 'time',
                    'closes_at' => $count === 4 ? null : now()->addDays($late ? -3 : 4),
                    'reach_proven_at' => $made,
                    'used_at' => $count === 3 ? now()->subDays(mt_rand(0, 70)) : null,
                    'created_at' => $made,
                    'updated_at' => $made,
                ];
            }
        }
        $this->insert('ftp_users', $rows);
    }
}
