<?php

declare(strict_types=1);

namespace Tests\Hosting;

use PHPUnit\Framework\TestCase;
use Tests\Support\FreePort;
use Tests\Support\Scratch;

/**
 * The two commands in a fresh copy of the tree: from nothing to the sign-in page, again, anew, and ended to the last
 * process.
 */
final class WholeStartTest extends TestCase
{
    use Scratch {
        tearDown as private sweep;
    }

    private const PORTS = [
        'CELLARIUM_PORT',
        'CELLARIUM_STANDIN_FTP_PORT',
        'CELLARIUM_STANDIN_SSH_PORT',
        'CELLARIUM_STANDIN_WEB_PORT',
        'CELLARIUM_STANDIN_CONTROL_PORT',
        'DB_PORT',
    ];

    private string $copy;

    /** @var array<string, int> */
    private array $ports;

    protected function setUp(): void
    {
        $root = dirname(__DIR__, 2);
        $this->copy = $this->directory().'/copy';
        mkdir($this->copy);
        // What git knows, and the packages by links: fetching them again is Composer's matter.
        $this->bash(
            "cd '$root' && git ls-files -coz --exclude-standard --deduplicate | xargs -0 cp -p --parents "
                ."-t '$this->copy' && (cp -al vendor '$this->copy/' 2>/dev/null || cp -a vendor '$this->copy/')",
        );
        $settings = (string) file_get_contents("$this->copy/.env.example");
        foreach (self::PORTS as $name) {
            $this->ports[$name] = FreePort::find();
            $settings = (string) preg_replace("/^$name=.*/m", "$name={$this->ports[$name]}", $settings);
        }
        file_put_contents("$this->copy/.env.example", $settings);
    }

    protected function tearDown(): void
    {
        is_file("$this->copy/stop") && $this->bash('./stop');
        $this->sweep();
    }

    /** @return array<string, string> none of the settings of this test run */
    private function environment(): array
    {
        return array_intersect_key(getenv(), array_flip(['PATH', 'HOME', 'LANG']));
    }

    private function bash(string $command): string
    {
        $process = proc_open(
            ['bash', '-c', $command],
            [1 => ($output = tmpfile()), 2 => $output],
            $pipes,
            $this->copy,
            $this->environment(),
        );
        self::assertIsResource($process);
        $status = proc_close($process);
        rewind($output);
        $said = (string) stream_get_contents($output);
        self::assertSame(
            0,
            $status,
            "$command\n$said"
                .implode(array_map(file_get_contents(...), glob("$this->copy/var/storage/logs/*.log") ?: [])),
        );

        return $said;
    }

    /** @return list<int> processes working from the copy, by their command lines */
    private function processes(): array
    {
        $found = [];
        foreach (glob('/proc/[0-9]*/cmdline') ?: [] as $file) {
            if (str_contains((string) @file_get_contents($file), "$this->copy/")) {
                $found[] = (int) basename(dirname($file));
            }
        }

        return $found;
    }

    private function signInPage(): string
    {
        return (string) @file_get_contents("http://127.0.0.1:{$this->ports['CELLARIUM_PORT']}/sign-in");
    }

    /** The user of the settings reads and adds to the record; all else is denied, by the grants and not by triggers. */
    private function recordIsKept(): void
    {
        preg_match('/^DB_PASSWORD=(.+)$/m', (string) file_get_contents("$this->copy/.env"), $match);
        $database = new \PDO(
            "mysql:host=127.0.0.1;port={$this->ports['DB_PORT']};dbname=cellarium",
            'cellarium',
            $match[1],
        );
        self::assertGreaterThan(100, $database->query('SELECT COUNT(*) FROM record_entries')?->fetchColumn());
        foreach (
            [
                'UPDATE record_entries SET sentence = "x"',
                'DELETE FROM record_entries',
                'TRUNCATE record_entries',
                'DROP TRIGGER record_keeps_update',
                'ALTER TABLE record_entries DROP COLUMN seal',
                'DELETE FROM record_ends',
                'DROP TABLE people',
            ] as $statement
        ) {
            try {
                $database->exec($statement);
                self::fail("$statement was carried out");
            } catch (\PDOException $denied) {
                self::assertStringContainsString('command denied', $denied->getMessage(), $statement);
            }
        }
        self::assertStringContainsString('"ok":true', $this->bash('php artisan cellarium:record --verify --json'));
    }

    /** @return int the new backup's number */
    private function backup(): int
    {
        return json_decode(
            $this->bash('php artisan cellarium:backup pilgrimstones.example --json'),
            true,
            64,
            JSON_THROW_ON_ERROR,
        )['id'];
    }

    /**
     * Begins ./start and ends all of it without warning, as soon as something can be seen of a step.
     *
     * @param  \Closure(): bool  $isReached
     */
    private function startAndKillAt(string $step, \Closure $isReached): void
    {
        $process = proc_open(
            ['setsid', './start'],
            [1 => ['file', "$this->copy/said", 'w'], 2 => ['file', "$this->copy/errors", 'w']],
            $pipes,
            $this->copy,
            $this->environment(),
        );
        self::assertIsResource($process);
        while (! $isReached()) {
            $status = proc_get_status($process);
            self::assertTrue($status['running'], "$step: ".file_get_contents("$this->copy/errors"));
            usleep(2_000);
            clearstatcache();
        }
        posix_kill(-proc_get_status($process)['pid'], SIGKILL);
        foreach ($this->processes() as $number) {
            posix_kill($number, SIGKILL);
        }
        proc_close($process);
        while ($this->processes() !== []) {
            usleep(10_000);
        }
    }

    /** Each step of the first start is ended where nothing can catch it, and the next start goes on from there. */
    public function test_a_first_start_that_is_ended_anywhere_is_taken_up_by_the_next(): void
    {
        // As people who know the framework do, and as an earlier version left it: some lines are empty, some missing.
        $this->bash('sed "/^DB_BACKUP_/d; /^CELLARIUM_IDENTITY=/d" .env.example >.env');
        $var = "$this->copy/var";
        $socket = "--socket=$var/mariadb.sock";
        $counts = static fn (string $table): bool => (int) shell_exec(
            "mariadb --no-defaults $socket -N -e 'SELECT COUNT(*) FROM $table' cellarium 2>/dev/null",
        ) > 0;
        $this->startAndKillAt('marks', static fn (): bool => is_file("$var/.cellarium-mark"));
        $this->startAndKillAt('database', static fn (): bool => is_dir("$var/mariadb.new/mysql"));
        $this->startAndKillAt('schema', static fn (): bool => is_file("$var/mariadb/cellarium/people.ibd"));
        $this->startAndKillAt('host', static fn (): bool => is_file("$var/standin/world.json"));
        $this->startAndKillAt('backups', static fn (): bool => $counts('backups'));
        self::assertStringContainsString('was broken off', $this->bash('./start --background'));
        self::assertStringContainsString('Sign in', $this->signInPage());
        $this->recordIsKept();
        $this->itIsSavedAndComesBack();
        $this->bash('./stop');
        foreach ([
            'backups' => 'does not have the mark',
            'contents' => 'does not have the mark',
            'mariadb' => 'The database is not in',
        ] as $directory => $words) {
            $this->bash("mv var/$directory away && ! ./start --background >refused 2>&1 && grep -q '$words' refused "
                ."&& rm -rf var/$directory && mv away var/$directory");
        }
        $this->bash('./start --background');
        $this->bash('./stop');
        self::assertSame([], $this->processes());
    }

    /** By the users that ./start made, with no more than they may do, and by the commands that people type. */
    private function itIsSavedAndComesBack(): void
    {
        $place = $this->directory();
        file_put_contents("$this->copy/.env", "CELLARIUM_SELF_BACKUP_TO=$place\n", FILE_APPEND);
        $said = $this->bash('php artisan cellarium:self-backup --new-passphrase --json');
        $passphrase = json_decode($said, true, flags: JSON_THROW_ON_ERROR)['passphrase'];
        $this->bash('php artisan cellarium:self-backup --nightly');
        self::assertStringContainsString('brought back beside', $this->bash('php artisan cellarium:self-backup '
            .'--rehearse'));
        $before = $this->bash('php artisan cellarium:accounts --json');
        $this->bash('./stop');
        $this->bash('mv var gone && mkdir -p var && cp -a gone/contents var/ && mv .env was.env && rm .passphrase '
            .'&& sed -e "/^APP_KEY=/d" -e "/^CELLARIUM_IDENTITY=/d" -e "/^CELLARIUM_SELF/d" was.env >.env');
        file_put_contents("$place/word", "$passphrase\n");
        $this->bash("bin/bring-back $place/cellarium-*.sealed $place/word");
        $this->bash('./start --background');
        self::assertSame($before, $this->bash('php artisan cellarium:accounts --json'));
        $this->recordIsKept();
        self::assertStringContainsString('"ok":true', $this->bash('php artisan cellarium:verify --all --json'));
    }

    public function test_from_nothing_to_the_sign_in_page_and_back_to_nothing(): void
    {
        // In the foreground first, as a person does it: own settings, own key, the demo world; Ctrl-C ends all of it.
        $process = proc_open(
            ['setsid', './start'],
            [1 => ['pipe', 'w'], 2 => ['file', "$this->copy/errors", 'w']],
            $pipes,
            $this->copy,
            $this->environment(),
        );
        self::assertIsResource($process);
        $said = '';
        while (! str_contains($said, 'Ctrl-C ends it.') && ($line = fgets($pipes[1])) !== false) {
            $said .= $line;
        }
        self::assertStringContainsString(
            "http://127.0.0.1:{$this->ports['CELLARIUM_PORT']}",
            $said,
            (string) file_get_contents("$this->copy/errors"),
        );
        self::assertStringContainsString('aldous@marramtide.example', $said);
        self::assertStringContainsString('Sign in', $this->signInPage());
        self::assertMatchesRegularExpression(
            '/^APP_KEY=base64:[A-Za-z0-9+\/]{43}=$/m',
            (string) file_get_contents("$this->copy/.env"),
        );
        self::assertSame(0600, fileperms("$this->copy/.env") & 0777);
        self::assertCount(
            16,
            json_decode($this->bash('php artisan cellarium:accounts --json'), true, 64, JSON_THROW_ON_ERROR),
        );
        self::assertGreaterThan(8, count($this->processes()));
        $this->recordIsKept();
        posix_kill(-proc_get_status($process)['pid'], SIGINT);
        self::assertSame(0, proc_close($process), (string) file_get_contents("$this->copy/errors"));
        self::assertSame([], $this->processes());

        // Again, in the background: the world is the one from before, with what was done in it.
        $this->bash('./start --background');
        $first = $this->backup();
        $this->bash('./stop');
        self::assertSame([], $this->processes());
        self::assertSame('', $this->signInPage());
        $this->bash('./start --background');
        self::assertSame($first + 1, $this->backup());
        $this->bash('./stop');

        // Anew.
        $this->bash('./start --background --fresh');
        self::assertStringContainsString('Sign in', $this->signInPage());
        self::assertSame($first, $this->backup());
        $this->bash('./stop');
        self::assertSame([], $this->processes());
    }
}
