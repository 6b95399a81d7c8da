<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\FtpUser;
use App\Models\Package;
use Illuminate\Http\UploadedFile;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Support\StandinHost;
use Tests\Support\Zips;

/**
 * Bad input is answered with what is wrong and what to do; the server stays as it was and nothing half-made is left.
 */
final class BadInputTest extends AppTestCase
{
    /** @return iterable<string, array{\Closure(string): string, string}> */
    public static function packages(): iterable
    {
        yield 'broken' => [
            static fn (string $dir): string => self::cut(
                Zips::make("$dir/x.zip", ['index.html' => random_bytes(4000)]),
            ),
            'not a zip, tar, tar.gz or tar.xz',
        ];
        yield 'climbs out' => [
            static fn (string $dir): string => Zips::make("$dir/x.zip", ['index.html' => 'x', '../../evil.php' => 'x']),
            'leads out of the directory',
        ];
        yield 'a bomb' => [
            static fn (string $dir): string => Zips::bomb("$dir/x.zip", 20, 500),
            'hundreds of times its size',
        ];
        yield 'empty' => [
            static function (string $dir): string {
                file_put_contents("$dir/x.zip", "PK\x05\x06".str_repeat("\0", 18));

                return "$dir/x.zip";
            },
            'holds no files',
        ];
    }

    private static function cut(string $file): string
    {
        file_put_contents($file, substr((string) file_get_contents($file), 0, 2000));

        return $file;
    }

    #[DataProvider('packages')]
    public function test_a_bad_package_is_refused_on_the_page_and_on_the_console(\Closure $make, string $words): void
    {
        $before = self::contents($this->host->home);
        $file = $make($this->var);
        self::assertLessThan(1_100_000, filesize($file));
        $this->actingAs($this->person)->from('/packages')->followingRedirects()
            ->post('/packages', ['package' => new UploadedFile($file, 'x.zip', null, null, true)])
            ->assertOk()->assertSee($words)->assertDontSee('Stack trace');
        foreach ([['deploy', 'site.example', $file], ['inspect', $file], ['plan', 'site.example', $file]] as $call) {
            [$status, $said] = $this->artisanJson(...$call);
            self::assertSame(1, $status);
            self::assertStringContainsString($words, $said['error']);
        }
        self::assertSame([0, 0], [Package::count(), Deployment::count()]);
        self::assertSame($before, self::contents($this->host->home));
    }

    public function test_a_package_without_a_start_page_is_shown_and_not_deployed(): void
    {
        $before = self::contents($this->host->home);
        $package = $this->package(['readme.txt' => 'r', 'public/index.html' => 'x']);
        $this->actingAs($this->person)
            ->get("/packages/$package->id")
            ->assertOk()
            ->assertSee('There is no start page at the top')
            ->assertDontSee('Choose how');
        $this->from('/deployments/new')
            ->followingRedirects()
            ->post('/deployments', ['site' => $this->site->id, 'package' => $package->id])
            ->assertOk()
            ->assertSee('cannot go to site.example')
            ->assertSee('pack the folder it lies in');
        self::assertSame(0, Deployment::count());
        self::assertSame($before, self::contents($this->host->home));
    }

    public function test_a_wrong_password_and_a_host_without_address(): void
    {
        $package = $this->package();
        $before = self::contents($this->host->home);
        $this->account->update(['secret' => 'not-the-password']);
        [$status, $said] = $this->artisanJson('deploy', 'site.example', $this->zip());
        self::assertSame(1, $status);
        self::assertStringContainsString('the sign-in was refused', $said['error']);
        self::assertStringContainsString('Check login and password', $said['error']);
        $this->actingAs($this->person)
            ->followingRedirects()
            ->post("/accounts/{$this->account->id}/connect")
            ->assertOk()
            ->assertSee('Login or password is not right')
            ->assertSee('Use the whole login: harbour@site.example');

        $this->account
            ->fill(['host' => 'nowhere.invalid', 'secret' => StandinHost::PASSWORD])
            ->bindSecrets()
            ->save();
        $this->from('/deployments/new')
            ->followingRedirects()
            ->post('/deployments', ['site' => $this->site->id, 'package' => $package->id])
            ->assertOk()
            ->assertSee('the name does not resolve')
            ->assertSee('give the address from the provider')
            ->assertSee('Nothing on the server was changed');
        self::assertSame([DeploymentState::NotPlanned, DeploymentState::NotPlanned], Deployment::pluck('state')->all());
        self::assertSame($before, self::contents($this->host->home));
    }

    public function test_a_full_account_is_refused_before_anything_is_touched(): void
    {
        $before = self::contents($this->host->home);
        $this->host->faults(['full_at_bytes' => 600]);
        [$status, $said] = $this->artisanJson(
            'deploy',
            'site.example',
            $this->zip(['index.html' => random_bytes(5000)]),
        );
        self::assertSame([1, 'refused'], [$status, $said['state']]);
        self::assertStringContainsString('Make room in the account', $said['error']);
        self::assertSame($before, self::contents($this->host->home));
    }

    public function test_an_account_that_turns_out_full_midway_is_put_back(): void
    {
        $before = self::contents($this->host->home);
        $this->account->update(['control_url' => null]);
        $this->host->faults(['full_at_bytes' => 6000]);
        [$status, $said] = $this->artisanJson(
            'deploy',
            'site.example',
            $this->zip(['index.html' => 'x', 'a.css' => random_bytes(4000), 'b.css' => random_bytes(4000)]),
        );
        self::assertSame([2, 'put_back'], [$status, $said['state']], (string) json_encode($said));
        self::assertMatchesRegularExpression('/[ab]\.css|-\d\.part/', $said['error'], 'which file');
        self::assertStringContainsString('552', $said['error'], 'what the server said');
        self::assertStringContainsString('whole again', $said['error']);
        self::assertSame($before, self::contents($this->host->home));
    }

    public function test_a_refused_form_keeps_all_that_was_typed(): void
    {
        $this->actingAs($this->person);
        app(\App\Accounts\AccountCheck::class)->connect($this->account);
        $this->host->control(
            'POST',
            '/v1/ftp-users',
            StandinHost::TOKEN,
            [
                'name' => 'job',
                'password' => 'a-long-enough-word',
                'directory' => '/www',
                'space_limit' => null,
            ],
        );
        $typed = [
            'name' => 'job',
            'directory' => '/www/site.example',
            'purpose' => 'the new site',
            'password_kind' => 'own',
            'password' => 'vK7-mubel-Tarn-40q',
            'ends' => 'time',
            'closes' => now()->addDay()->format('Y-m-d\TH:i'),
            'reason' => 'left over',
            'megabytes' => '12',
            'read_only' => '1',
            'forgets' => '1',
        ];
        $address = "/accounts/{$this->account->id}/ftp-users";
        $page = $this->post($address, $typed)
            ->assertStatus(422)
            ->assertSee('this login exists already in the account, choose another');
        foreach (['the new site', 'job', '12', 'vK7-mubel-Tarn-40q', $typed['closes'], 'left over'] as $value) {
            $page->assertSee('value="'.$value.'"', false);
        }
        self::assertSame(4, substr_count((string) $page->getContent(), ' checked'), 'both choices and both boxes');
        self::assertSame(0, FtpUser::count());
        $wrongs = [
            ['name' => 'A B', 'words' => 'This host takes a to z, 0 to 9 and . _ - only.'],
            ['directory' => '/www/../mail', 'words' => 'has no &quot;..&quot; in it'],
            ['directory' => '/www/typo', 'words' => 'Most often that is a typing mistake'],
            ['closes' => '2020-01-01T00:00', 'words' => 'lies in the past'],
            ['closes' => 'soon', 'words' => 'Give a day and a time'],
            ['megabytes' => '-1', 'words' => 'a whole number of MB'],
            ['ends' => 'never', 'reason' => '', 'words' => 'Say why it never closes'],
            ['ends' => 'whenever', 'words' => 'Choose when it closes'],
            ['password' => 'Pilgrim2026!', 'words' => 'bits: '],
            ['password' => 'short', 'words' => 'A password has 12 to 128 characters'],
        ];
        foreach ($wrongs as $wrong) {
            $this->post($address, $wrong + ['name' => 'other'] + $typed)
                ->assertStatus(422)
                ->assertSee($wrong['words'], false)
                ->assertSee('value="the new site"', false);
        }
        self::assertSame(
            [0, 1],
            [FtpUser::count(), count($this->host->control('GET', '/v1/ftp-users', StandinHost::TOKEN)[1]['ftp_users'])],
        );
    }

    public function test_more_text_than_a_field_is_for_is_turned_away_and_not_remembered(): void
    {
        $long = str_repeat('a', 100_000);
        $this->actingAs($this->person)->post('/accounts', ['label' => $long])->assertStatus(400)->assertSee('“label”');
        $this->get("/accounts?q=$long")->assertStatus(400)->assertSee('more text than the field is for');
        self::assertStringNotContainsString('aaaa', json_encode(session()->all(), JSON_THROW_ON_ERROR));
        $this->post('/accounts/import', ['text' => "$long\n"])->assertRedirectContains('/accounts/import/');
    }

    public function test_pages_that_are_not_there_and_guests(): void
    {
        $this->get('/accounts')->assertRedirect('/sign-in');
        $this->post("/accounts/{$this->account->id}/connect")->assertRedirect('/sign-in');
        $this->actingAs($this->person)->get('/deployments/999')->assertNotFound()->assertSee('There is nothing here');
        $this->get('/no-such-page')->assertNotFound()->assertSee('There is nothing here');
        $this->get('/accounts')
            ->assertOk()
            ->assertHeader('Content-Security-Policy', \App\Http\Middleware\SecurityHeaders::POLICY);
        foreach (['/', '/packages', '/deployments', '/backups', '/record', '/find?q=%25'] as $path) {
            $this->get($path)->assertOk();
        }
    }

    public function test_an_error_of_our_own_and_a_database_that_is_away_are_said_without_a_trace(): void
    {
        \Illuminate\Support\Facades\Route::get(
            '/broken',
            static fn () => throw new \LogicException('inner-words'),
        )->middleware('web');
        $this->get('/broken')->assertStatus(500)->assertSee('An error inside Cellarium')->assertDontSee('inner-words');
        [$status, $said] = (new ArtisanProcess(['cellarium:accounts', '--json'], ['DB_PORT' => '1']))->finish();
        self::assertSame(1, $status);
        self::assertStringContainsString('The database does not answer', $said);
        self::assertJson($said);
    }
}
