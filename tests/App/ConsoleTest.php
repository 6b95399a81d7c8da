<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Backup;
use App\Models\Deployment;
use App\Models\DeploymentState;

final class ConsoleTest extends AppTestCase
{
    public function test_deploy_tells_all_and_restore_brings_the_old_bytes_back(): void
    {
        $before = self::contents($this->root());
        [$status, $plan] = $this->artisanJson('plan', 'site.example', $this->zip());
        self::assertSame([0, 4, 1], [$status, $plan['added']['files'], $plan['set_aside']['files']]);
        self::assertSame($before, self::contents($this->root()), 'a plan changes nothing');

        [$status, $report] = $this->artisanJson('deploy', 'site.example', $this->zip());
        self::assertSame(0, $status);
        self::assertSame(['site.example', 'stones 1.0'], [$report['site'], $report['package']]);
        $bytes = array_sum(array_map(strlen(...), self::SITE));
        self::assertSame(['files' => 4, 'bytes' => $bytes, 'was' => 0], $report['added']);
        self::assertSame(
            [0, 0, 0, 1],
            [
                $report['replaced']['files'],
                $report['same']['files'],
                $report['kept']['files'],
                $report['set_aside']['files'],
            ],
        );
        self::assertSame([1, true], [$report['backup']['files'], $report['backup']['verified']]);
        self::assertSame(
            [
                'url' => "http://site.example:{$this->host->webPort}/",
                'status' => 200,
                'matches' => true,
                'fetched' => 5,
                'addresses' => 5,
                'read_back' => 0,
            ],
            $report['proof'],
        );
        self::assertGreaterThan(0, $report['seconds']);
        self::assertSame('<h1>New</h1>', file_get_contents($this->root().'/index.html'));
        self::assertFileDoesNotExist($this->root().'/default.htm');

        [$status, $again] = $this->artisanJson('deploy', 'site.example', $this->zip());
        self::assertSame(
            [0, 4, 0],
            [$status, $again['same']['files'], $again['added']['files'] + $again['replaced']['files']],
        );

        [$status] = $this->artisanJson('restore', (string) $report['backup']['id']);
        self::assertSame(0, $status);
        self::assertSame($before, self::contents($this->root()));
    }

    public function test_files_of_the_last_version_are_set_aside_and_others_kept(): void
    {
        $this->deployed();
        file_put_contents($this->root().'/theirs.txt', 'theirs');
        mkdir($this->root().'/uploads');
        file_put_contents($this->root().'/uploads/photo.jpg', 'photo');
        file_put_contents($this->root().'/.htaccess', '# host');
        [, $report] = $this->artisanJson(
            'deploy',
            'site.example',
            $this->zip(['index.html' => '<h1>Newer</h1>'], 'stones-1.1.zip'),
        );
        self::assertSame(
            [1, 3, 3],
            [$report['replaced']['files'], $report['kept']['files'], $report['set_aside']['files']],
        );
        self::assertSame(
            [
                '/.htaccess',
                '/css/',
                '/img/',
                '/img/deep/',
                '/index.html',
                '/theirs.txt',
                '/uploads/',
                '/uploads/photo.jpg',
            ],
            array_keys(self::contents($this->root())),
        );
    }

    public function test_backup_inspect_and_accounts(): void
    {
        [$status, $backup] = $this->artisanJson('backup', 'site.example');
        self::assertSame([0, 1, 1, true], [$status, $backup['files'], $backup['fetched'], $backup['verified']]);
        self::assertNotNull(Backup::findOrFail($backup['id'])->verified_at);
        self::assertSame([0, null], [$backup['taken_over'], $backup['taken_over_since']]);
        [$status, $found] = $this->artisanJson('inspect', $this->zip());
        self::assertSame(
            [0, 'stones', '1.0', 'stones', 'index.html', 7],
            [
                $status,
                $found['name'],
                $found['version'],
                $found['root_lifted'],
                $found['start_pages'][0]['winner'],
                $found['entries'],
            ],
        );
        [$status, $accounts] = $this->artisanJson('accounts');
        self::assertSame(
            [0, 'Pilgrim Stones Hostel', 'site.example'],
            [$status, $accounts[0]['client'], $accounts[0]['sites'][0]['domain']],
        );
    }

    public function test_refusals_exit_with_1_and_failures_that_were_put_back_with_2(): void
    {
        $before = self::contents($this->root());
        foreach (
            [
                ['deploy', 'nowhere.example', $this->zip()],
                ['deploy', 'site.example', '/no/such.zip'],
                ['restore', '99', null],
                ['plan', 'site.example', $this->zip(['readme.txt' => 'x', 'a/b' => 'c'], 'none.zip')],
            ] as [$command, $first, $second]
        ) {
            [$status, $said] = $this->artisanJson($command, ...array_filter([$first, $second]));
            self::assertSame(1, $status, $command);
            self::assertFalse($said['ok']);
            self::assertStringEndsWith('.', $said['error']);
        }
        $this->host->faults(['lie' => true]);
        [$status, $said] = $this->artisanJson('deploy', 'site.example', $this->zip());
        self::assertSame([2, 'put_back'], [$status, $said['state']]);
        self::assertStringContainsString('whole again', $said['error']);
        self::assertSame($before, self::contents($this->root()));
        self::assertSame(DeploymentState::PutBack, Deployment::latest('id')->firstOrFail()->state);
    }

    public function test_a_person_sees_bars_stage_by_stage_and_then_what_was_done(): void
    {
        [$status, $said] = (new ArtisanProcess(
            ['cellarium:deploy', 'site.example', $this->zip(), '--ansi'],
            $this->settings(),
        ))->finish();
        self::assertSame(0, $status, $said);
        $at = 0;
        foreach (
            [
                'surveying',
                'backing up',
                'sending',
                'replacing',
                'proving',
                'added',
                'backup',
                'site.example is live and proven',
            ] as $words
        ) {
            $at = strpos($said, $words, $at);
            self::assertNotFalse($at, "$words in $said");
        }
        self::assertMatchesRegularExpression('~sending +\[░+] 0/4~u', $said);
        self::assertMatchesRegularExpression('~sending +\[▓+] 4/4~u', $said);
    }

    public function test_a_disk_of_our_own_that_takes_no_more_refuses_before_anything_is_touched(): void
    {
        file_put_contents($this->root().'/large.bin', random_bytes(200_000));
        $before = self::contents($this->host->home);
        [$status, $said] = (new ArtisanProcess(
            ['cellarium:deploy', 'site.example', $this->zip(), '--json'],
            $this->settings(),
            65_536,
        ))->finish();
        self::assertSame(1, $status, $said);
        self::assertStringContainsString(
            'large.bin: a file of our own could not be read or written. Check the space',
            $said,
        );
        self::assertStringContainsString('Nothing on the server was changed', $said);
        self::assertSame($before, self::contents($this->host->home));
        [$status, $said] = (new ArtisanProcess(
            ['cellarium:deploy', 'site.example', $this->zip(), '--json'],
            $this->settings(),
        ))->finish();
        self::assertSame(0, $status, $said);
    }

    public function test_a_letter_is_read_without_showing_its_password(): void
    {
        file_put_contents(
            "$this->var/letter.txt",
            "FTP\nHost: FTP.x.example\nLogin: kelpie\nPassword: Known-Secret-1\nDirectory: /htdocs\n",
        );
        [$status, $accounts] = $this->artisanJson('letter', "$this->var/letter.txt");
        self::assertSame(
            [
                0,
                [
                    [
                        'host' => 'ftp.x.example',
                        'port' => 21,
                        'protocol' => 'ftp',
                        'login' => 'kelpie',
                        'password_found' => true,
                        'directory' => '/htdocs',
                        'domain' => null,
                        'otherwise' => [],
                        'said' => [],
                        'unsure' => ['protocol: only a heading says so'],
                        'changes' => ['host: put in small letters'],
                    ],
                ],
            ],
            [$status, $accounts],
        );
        [$status, $said] = (new ArtisanProcess(
            ['cellarium:letter', "$this->var/letter.txt"],
            $this->settings(),
        ))->finish();
        self::assertSame(0, $status);
        self::assertStringNotContainsString('Known-Secret-1', $said);
        self::assertSame(1, $this->artisanJson('letter', '/no/such')[0]);
    }
}
