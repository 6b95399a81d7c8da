<?php

declare(strict_types=1);

namespace Tests\App;

use App\Accounts\AccountCheck;
use App\Models\Account;
use App\Models\FtpUser;
use App\Models\Person;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use App\People\SignInGuard;
use App\Text\DisplayText;
use Cellarium\Core\Path\WireName;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Tests\Support\EchoingServer;
use Tests\Support\StandinHost;

/** Nobody is let in, and no secret goes where it was not meant for. */
final class DoorTest extends AppTestCase
{
    private function guess(string $email, string $from = '203.0.113.5', string $password = 'wrong'): string
    {
        $response = $this->withServerVariables(['REMOTE_ADDR' => $from])
            ->from('/sign-in')
            ->post('/sign-in', ['email' => $email, 'password' => $password]);
        $errors = $response->getSession()->get('errors');

        return $errors === null ? 'in' : (string) $errors->first('email');
    }

    public function test_letters_that_look_alike_are_one_name_and_one_count(): void
    {
        $ways = [
            'aldous@marramtide.example',
            'ALDOUS@marramtide.example',
            "al\u{FF44}ous@marramtide.example",
            "\u{FF41}ldous@marramtide.example",
            'aldous@marramtide.example ',
        ];
        foreach ($ways as $number => $way) {
            self::assertStringContainsString('do not belong together', $this->guess($way), "try $number");
        }
        foreach ($ways as $way) {
            self::assertStringContainsString(
                'Too many tries. Wait',
                $this->guess($way, '198.51.100.'.random_int(1, 200)),
            );
        }
        self::assertStringContainsString(
            'Wait',
            $this->guess('aldous@marramtide.example', '203.0.113.5', 'a-word-for-tests'),
            'nor with the right one',
        );
        $told = RecordEntry::where('action', RecordKind::SignInRefused)->latest('id')->firstOrFail();
        self::assertStringContainsString('further tries have to wait now', $told->sentence);
        self::assertSame('203.0.113.5', $told->address);
        $this->travel(31)->seconds();
        self::assertSame('in', $this->guess('aldous@marramtide.example', '203.0.113.5', 'a-word-for-tests'));
    }

    public function test_a_page_that_took_long_is_written_down_by_its_route_and_not_by_what_was_asked(): void
    {
        $log = storage_path('logs/cellarium.log');
        $before = strlen((string) @file_get_contents($log));
        config(['cellarium.slow_seconds' => 60]);
        $this->actingAs($this->person)->get("/accounts/{$this->account->id}?q=a-secret-word");
        self::assertSame($before, strlen((string) @file_get_contents($log)));
        config(['cellarium.slow_seconds' => 0]);
        clearstatcache();
        $this->get("/accounts/{$this->account->id}?q=a-secret-word");
        $said = substr((string) file_get_contents($log), $before);
        self::assertMatchesRegularExpression('~Slow: GET /accounts/\{account\} took [0-9.]+ s, \d+ MB~', $said);
        self::assertStringNotContainsString('a-secret-word', $said);
    }

    public function test_waiting_grows_and_one_address_may_not_try_many_names(): void
    {
        $tries = 0;
        for ($name = 1; $name <= 30; $name++) {
            $tries += str_contains($this->guess("name$name@marramtide.example"), 'do not belong') ? 1 : 0;
        }
        self::assertSame(15, $tries);
        Cache::flush();
        $waits = [];
        for ($minute = 0; $minute < 300; $minute++) {
            $said = $this->guess('aldous@marramtide.example', "198.51.100.$minute");
            preg_match('/Wait (\d+) seconds/', $said, $match) === 1 ? $waits[] = (int) $match[1] : null;
            $this->travel(20)->seconds();
        }
        self::assertGreaterThan(3000, max($waits));
        self::assertLessThanOrEqual(14, 300 - count($waits), 'so many guesses in a hundred minutes');
    }

    public function test_guesses_at_the_same_address_keep_nobody_out_of_a_device_they_signed_in_with(): void
    {
        $signIn = fn (string $password) => $this->withServerVariables(['REMOTE_ADDR' => '203.0.113.5'])
            ->from('/sign-in')
            ->post('/sign-in', ['email' => 'aldous@marramtide.example', 'password' => $password]);
        $device = $signIn('a-word-for-tests')->assertRedirect('/')->getCookie(SignInGuard::DEVICE);
        self::assertNotNull($device);
        self::assertSame(['/sign-in', true, 'strict'], [
            $device->getPath(),
            $device->isHttpOnly(),
            $device->getSameSite(),
        ]);
        $this->post('/sign-out');
        for ($name = 1; $name <= 20; $name++) {
            $this->guess("name$name@marramtide.example");
        }
        $elsewhere = $this->guess('aldous@marramtide.example', password: 'a-word-for-tests');
        self::assertStringContainsString('Wait', $elsewhere);
        $this->withCookie(SignInGuard::DEVICE, (string) $device->getValue());
        $signIn('a-word-for-tests')->assertRedirect('/');
        $this->post('/sign-out');
        for ($number = 0; $number < 5; $number++) {
            $signIn('wrong');
        }
        $said = $signIn('a-word-for-tests')->getSession()->get('errors')->first('email');
        self::assertStringContainsString('Too many tries', $said, 'nor is it let guess without end');
    }

    public function test_of_many_at_once_no_more_are_tried_than_one_after_the_other(): void
    {
        $begun = [];
        for ($number = 0; $number < 24; $number++) {
            // Each asks before any of them has been told that it was wrong.
            $guard = SignInGuard::for($this->person, 'aldous@marramtide.example', "198.51.100.$number");
            $begun[] = $guard->take();
        }
        self::assertSame(5, count(array_filter($begun, static fn (int $wait): bool => $wait === 0)));
        $this->travel(31)->seconds();
        $guard = SignInGuard::for($this->person, 'aldous@marramtide.example', '198.51.100.77');
        self::assertSame(0, $guard->take());
        $guard->takeBack();
        self::assertSame('in', $this->guess('aldous@marramtide.example', '198.51.100.77', 'a-word-for-tests'));
    }

    public function test_guesses_from_elsewhere_keep_nobody_out_who_has_been_in(): void
    {
        self::assertSame('in', $this->guess('aldous@marramtide.example', '192.0.2.10', 'a-word-for-tests'));
        $this->post('/sign-out');
        for ($try = 0; $try < 20; $try++) {
            $this->guess('aldous@marramtide.example', '198.51.100.7');
        }
        self::assertStringContainsString(
            'Wait',
            $this->guess('aldous@marramtide.example', '192.0.2.99', 'a-word-for-tests'),
        );
        self::assertSame('in', $this->guess('aldous@marramtide.example', '192.0.2.10', 'a-word-for-tests'));
    }

    public function test_a_password_goes_only_where_it_was_given_for(): void
    {
        $this->actingAs($this->person);
        $typed = [
            'client' => (string) $this->account->client_id,
            'protocol' => 'ftps',
            'host' => StandinHost::HOST,
            'port' => (string) $this->host->ftpPort,
            'login' => StandinHost::LOGIN,
            'password' => '',
        ];
        foreach (
            [
                ['host' => 'evil.example'],
                ['port' => '2121'],
                ['protocol' => 'ftp'],
                ['login' => 'somebody'],
                ['address' => '192.0.2.66'],
            ] as $change
        ) {
            foreach (['keep', 'try'] as $act) {
                $this->post("/accounts/{$this->account->id}", ['act' => $act] + $change + $typed)
                    ->assertStatus(422)
                    ->assertSee('the password is typed in again');
            }
        }
        $this->post("/accounts/{$this->account->id}", ['label' => 'Renamed'] + $typed)->assertRedirect();
        self::assertSame(
            ['Renamed', StandinHost::PASSWORD],
            [$this->account->refresh()->label, $this->account->secret],
        );
        $user = $this->ftpUser('job', '/www/site.example');
        $this->post(
            "/accounts/{$this->account->id}",
            ['host' => 'moved.example', 'password' => 'typed-anew'] + $typed,
        )->assertRedirect();
        self::assertSame(
            ['moved.example', 'typed-anew', false],
            [$this->account->refresh()->host, $this->account->secret, $this->account->secretsAreForElsewhere()],
        );
        self::assertNull(FtpUser::findOrFail($user->id)->secret, 'those of its users were for the other host too');
    }

    public function test_a_password_whose_account_was_changed_behind_the_form_is_not_sent(): void
    {
        $echoing = new EchoingServer;
        try {
            DB::table('accounts')
                ->where('id', $this->account->id)
                ->update([
                    'host' => 'localhost',
                    'address' => '127.0.0.1',
                    'port' => $echoing->port,
                    'protocol' => 'ftp',
                ]);
            [$status, $said] = $this->artisanJson('deploy', 'site.example', $this->zip());
            self::assertSame(1, $status);
            self::assertStringContainsString('Type it in again', $said['error']);
        } finally {
            $echoing->stop();
        }
    }

    public function test_the_password_of_an_ftp_user_is_not_sent_to_another_port_that_was_typed_in(): void
    {
        $user = $this->ftpUser();
        self::assertNotNull($user->secret);
        $echoing = new EchoingServer;
        try {
            $this->account->update(['ftp_protocol' => 'ftp', 'ftp_port' => $echoing->port]);
            [$status, $said] = $this->artisanJson('user-prove', (string) $this->account->id, $user->login);
            self::assertSame(1, $status);
            self::assertStringContainsString('is not sent there', (string) json_encode($said));
            $greeting = fgets(stream_socket_client("tcp://127.0.0.1:$echoing->port") ?: self::fail('It is gone.'));
            self::assertStringContainsString('nothing yet', (string) $greeting, 'it heard no password at all');
            $this->account->update(['ftp_protocol' => null, 'ftp_port' => null]);
            self::assertSame(0, $this->artisanJson('user-prove', (string) $this->account->id, $user->login)[0]);
        } finally {
            $echoing->stop();
        }
    }

    public function test_what_a_server_repeats_of_a_password_is_kept_and_shown_nowhere(): void
    {
        $echoing = new EchoingServer;
        $secret = StandinHost::PASSWORD;
        try {
            $this->account
                ->forceFill([
                    'host' => 'localhost',
                    'address' => '127.0.0.1',
                    'port' => $echoing->port,
                    'protocol' => 'ftp',
                    'secret' => $secret,
                    'control_url' => null,
                    'control_token' => null,
                ])
                ->bindSecrets()
                ->save();
            foreach ([1, 2] as $time) {
                app(AccountCheck::class)->connect($this->account->refresh()->load('client', 'sites'));
            }
            $this->artisanJson('backup', 'site.example');
            $this->actingAs($this->person);
            $texts = ['pages' => ''];
            foreach (["/accounts/{$this->account->id}", '/', '/record', '/backups', '/accounts'] as $page) {
                $texts['pages'] .= $this->get($page)->assertOk()->getContent();
            }
            foreach (['accounts', 'record_entries', 'backups', 'proofs', 'deployments', 'errands', 'cache'] as $table) {
                $texts[$table] = (string) json_encode(
                    DB::table($table)->get(),
                    JSON_UNESCAPED_SLASHES | JSON_INVALID_UTF8_SUBSTITUTE,
                );
            }
            $texts['log'] = (string) @file_get_contents(storage_path('logs/cellarium.log'));
            self::assertStringContainsString('(hidden)', $texts['accounts'], 'it was really repeated');
            foreach ($texts as $where => $text) {
                foreach ([$secret, strtoupper($secret), base64_encode($secret), bin2hex($secret)] as $form) {
                    self::assertStringNotContainsString($form, $text, $where);
                }
            }
        } finally {
            $echoing->stop();
        }
    }

    public function test_a_link_that_is_handed_out_leads_to_the_address_that_is_set_whoever_asks(): void
    {
        config(['app.url' => 'https://cellarium.marramtide.example']);
        $user = $this->ftpUser('job', '/www/site.example');
        $page = (string) $this->actingAs($this->person)
            ->withServerVariables(['HTTP_HOST' => 'evil.example'])
            ->post("http://evil.example/ftp-users/$user->id/hand-over", ['how' => 'link', 'hours' => '8'])
            ->assertOk()
            ->getContent();
        self::assertStringContainsString('https://cellarium.marramtide.example/hand-over#', $page);
        self::assertStringNotContainsString('evil.example/hand-over', $page);
    }

    public function test_what_nobody_sees_is_made_visible_and_fields_give_back_what_they_were_given(): void
    {
        self::assertSame('‹U+202E›gpj.exe', DisplayText::escaped("\u{202e}gpj.exe"));
        self::assertSame('a‹U+0007›b‹U+200B›', DisplayText::escaped("a\x07b\u{200b}"));
        self::assertSame('gr‹FC›n.txt', DisplayText::escaped(WireName::fromWire("gr\xfcn.txt")));
        self::assertSame('größe &lt;b&gt; 日本 👩‍🔧', DisplayText::escaped('größe <b> 日本 👩‍🔧'));
        $this->actingAs($this->person);
        Account::where('id', $this->account->id)->update(['label' => "odd\u{202e}label"]);
        $this->get("/accounts/{$this->account->id}")->assertSee('odd‹U+202E›label', false);
        $this->get("/accounts/{$this->account->id}/edit")->assertSee("value=\"odd\u{202e}label\"", false);
        self::assertSame(1, Person::count());
    }

    public function test_lists_are_no_formulas(): void
    {
        $this->account->update(['label' => '=HYPERLINK("http://evil.example")']);
        $this->ftpUser('job', '/www/site.example');
        $this->actingAs($this->person);
        $list = $this->post('/accounts/export')->assertOk()->streamedContent();
        self::assertStringContainsString('"\'=HYPERLINK(""http://evil.example"")"', $list);
        self::assertStringNotContainsString(',=', $list);
    }
}
