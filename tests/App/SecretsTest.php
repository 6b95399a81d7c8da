<?php

declare(strict_types=1);

namespace Tests\App;

use App\Accounts\ConnectAccount;
use App\Hosting\Connections;
use App\Models\Account;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Plans\MakePlan;
use App\Runs\CarryOutDeployment;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Path\RemotePath;
use Illuminate\Support\Facades\DB;
use Tests\Support\StandinHost;

/** Known secrets are looked for everywhere they must not be: database, logs, job payloads, pages, exceptions, files. */
final class SecretsTest extends AppTestCase
{
    protected const USES_WORKERS = true;

    public function test_no_secret_is_found_where_it_does_not_belong(): void
    {
        $log = storage_path('logs/cellarium.log');
        @unlink($log);
        $texts = [];
        $user = $this->ftpUser('job', '/www/site.example');
        $secrets = [StandinHost::PASSWORD, StandinHost::TOKEN, (string) $user->secret, 'a-word-for-tests'];
        self::assertGreaterThan(12, strlen($secrets[2]));

        config(['queue.default' => 'database']);
        $this->actingAs($this->person);
        [$keyed, $list] = $this->takeOnWithSecrets($secrets);
        $package = $this->package();
        $this->post('/deployments', [
            'site' => $this->site->id,
            'package' => $package->id,
            'user' => $user->id,
        ])->assertRedirect();
        $run = Deployment::latest('id')->firstOrFail();
        app(MakePlan::class)->carryOut($run->id);
        $this->post("/deployments/$run->id/start")->assertRedirect();
        self::assertSame(2, DB::table('jobs')->count());
        $texts['job payload'] = DB::table('jobs')->pluck('payload')->implode("\n");

        $handed = $this->post("/ftp-users/$user->id/hand-over", ['how' => 'show'])->assertOk();
        self::assertStringContainsString($secrets[2], (string) $handed->getContent(), 'the one hand-over shows it');
        $this->from("/ftp-users/$user->id")
            ->followingRedirects()
            ->post("/ftp-users/$user->id/hand-over", ['how' => 'show'])
            ->assertOk()
            ->assertSee('handed over already')
            ->assertDontSee($secrets[2]);

        app(CarryOutDeployment::class)->carryOut($run->id);
        self::assertSame(DeploymentState::Proven, $run->refresh()->state, (string) $run->trouble);
        foreach (
            [
                '/',
                '/accounts',
                "/accounts/{$this->account->id}",
                '/packages',
                "/packages/$package->id",
                '/deployments',
                "/deployments/$run->id",
                "/deployments/$run->id/live",
                '/backups',
                '/record',
                '/find?q=harbour',
                "/accounts/$keyed->id",
                "/accounts/$keyed->id/edit",
                '/accounts/new',
                $list,
                '/find?q=',
                '/deployments/new?site='.$this->site->id,
                '/ftp-users',
                '/reach',
                '/reach.csv',
                "/ftp-users/$user->id",
                "/ftp-users/$user->id/state",
                "/accounts/{$this->account->id}/reach.csv",
            ] as $path
        ) {
            $texts["page $path"] = (string) $this->get($path)->assertOk()->getContent();
        }
        $this->account->fill(['host' => 'nowhere.invalid'])->bindSecrets()->save();
        try {
            app(Connections::class)->remote($this->account)->list(RemotePath::root());
        } catch (RemoteFailure $failure) {
            report(new \RuntimeException('wrapped', 0, $failure));
            $texts['exception'] = $failure.print_r($failure, true);
        }
        report(new \LogicException('something unexpected'));
        $this->account
            ->fill(['host' => StandinHost::HOST])
            ->bindSecrets()
            ->save();
        $texts['model'] = $keyed->toJson()
            .print_r($keyed->toArray(), true)
            .$this->account->toJson()
            .print_r($this->account->toArray(), true)
            .$user->toJson();
        $texts['log'] = (string) file_get_contents($log);
        self::assertNotSame('', $texts['log']);
        foreach (DB::select('SHOW TABLES') as $table) {
            $name = (string) current((array) $table);
            $texts["table $name"] = json_encode(
                DB::table($name)->get(),
                JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_INVALID_UTF8_SUBSTITUTE,
            );
        }
        exec(
            'grep -rlaF -e '
                .implode(' -e ', array_map(escapeshellarg(...), $secrets))
                .' '
                .escapeshellarg($this->var),
            $files,
        );
        self::assertSame([], $files, 'files of ours that hold a secret');
        foreach ($texts as $where => $text) {
            foreach ($secrets as $secret) {
                self::assertStringNotContainsString($secret, $text, $where);
            }
        }
        self::assertNotSame('', $texts['job payload']);
    }

    /**
     * A key with its passphrase, a password on its way to the host, and a list that is being looked at.
     *
     * @param  list<string>  $secrets  grows by theirs
     * @return array{Account, string} the account, and where the list is looked at
     */
    private function takeOnWithSecrets(array &$secrets): array
    {
        $file = "{$this->host->directory}/key";
        exec(
            'ssh-keygen -q -a 1 -t ed25519 -N passphrase-of-mine -f '.escapeshellarg($file).' </dev/null',
            $said,
            $status,
        );
        self::assertSame(0, $status);
        $text = (string) file_get_contents($file);
        $this->post('/accounts', [
            'client' => (string) $this->account->client_id,
            'host' => 'ssh.invalid',
            'protocol' => 'sftp',
            'login' => 'keyed',
            'private_key' => $text,
            'passphrase' => 'passphrase-of-mine',
        ])->assertRedirect();
        $keyed = Account::where('login', 'keyed')->firstOrFail();
        $keyed->update(['next_secret' => 'Next-Secret-88-x']);
        $list = (string) $this->post('/accounts/import', [
            'text' => "client,host,login,password\nA,a.example,l,List-Secret-77-x\n",
        ])
            ->assertRedirect()
            ->headers->get('Location');
        $this->post("/accounts/$keyed->id/connect");
        app(ConnectAccount::class)->carryOut($keyed->id);
        self::assertSame('name_unknown', $keyed->refresh()->trouble);
        DB::table('jobs')->delete();
        array_push(
            $secrets,
            explode("\n", $text)[2],
            explode("\n", (string) $keyed->private_key)[1],
            'passphrase-of-mine',
            'Next-Secret-88-x',
            'List-Secret-77-x',
        );

        return [$keyed, (string) parse_url($list, PHP_URL_PATH)];
    }

    public function test_secrets_do_not_stand_in_the_command_line_of_workers(): void
    {
        $this->host->faults(['delay_ms' => 50]);
        $seen = '';
        $run = app(\App\Plans\Plans::class)->deploy($this->site, $this->package());
        $run->update(['state' => DeploymentState::Queued]);
        app(\App\Runs\Runner::class)->carryOut($run, static function () use (&$seen): void {
            foreach (glob('/proc/[0-9]*/cmdline') ?: [] as $file) {
                $command = (string) @file_get_contents($file);
                if (str_contains($command, 'Transfer/worker.php')) {
                    $seen .= $command.@file_get_contents(dirname($file).'/environ');
                }
            }
        });
        self::assertNotSame('', $seen);
        self::assertStringNotContainsString(StandinHost::PASSWORD, $seen);
    }
}
