<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Person;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use App\People\SecondFactor;
use Cellarium\Core\People\OneTimeCode;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Illuminate\Testing\TestResponse;
use Tests\Support\Builder\PersonBuilder;

/** By password, second factor and recovery code; what a session is bound to; showing again that it is still them. */
final class SigningInTest extends AppTestCase
{
    protected const HOST_IS_ONLY_READ = true;

    private function signIn(Person $person, string $password = PersonBuilder::PASSWORD): TestResponse
    {
        return $this->post('/sign-in', ['email' => $person->email, 'password' => $password]);
    }

    /** Another browser of somebody, in this one process. */
    private function elsewhere(): void
    {
        $this->flushSession();
        $this->app['auth']->forgetGuards();
    }

    public function test_passwords_are_kept_as_argon2id_and_older_hashes_are_renewed_when_they_are_used(): void
    {
        self::assertStringStartsWith('$argon2id$', (string) $this->person->password);
        $cheap = password_hash(PersonBuilder::PASSWORD, PASSWORD_ARGON2ID, ['memory_cost' => 64, 'time_cost' => 1]);
        DB::table('people')->where('id', $this->person->id)->update(['password' => $cheap]);

        $this->signIn($this->person)->assertRedirect('/');

        self::assertFalse(Hash::needsRehash((string) $this->person->refresh()->password));
        $this->get('/accounts')->assertOk();
    }

    public function test_with_a_second_factor_the_password_alone_opens_nothing(): void
    {
        $person = PersonBuilder::aHelper()->withSecondFactor(OneTimeCode::make())->build();

        $this->signIn($person)->assertRedirect('/sign-in/code');

        $this->assertGuest();
        $this->get('/')->assertRedirect('/sign-in');
        $this->post('/sign-in/code', ['code' => '000000'])->assertSessionHasErrors('code');
        $this->assertGuest();
    }

    public function test_a_code_opens_once(): void
    {
        $key = OneTimeCode::make();
        $person = PersonBuilder::aHelper()->withSecondFactor($key)->build();
        $code = $key->at(now()->getTimestamp());

        $this->signIn($person);
        $this->post('/sign-in/code', ['code' => $code])->assertRedirect('/');
        $this->assertAuthenticatedAs($person);

        $this->elsewhere();
        $this->signIn($person);
        $this->post('/sign-in/code', ['code' => $code])->assertSessionHasErrors('code');
        $this->assertGuest();
    }

    public function test_the_code_has_to_come_soon_after_the_password(): void
    {
        $key = OneTimeCode::make();
        $person = PersonBuilder::aHelper()->withSecondFactor($key)->build();
        $this->signIn($person);
        $this->travel(6)->minutes();

        $this->post('/sign-in/code', ['code' => $key->at(now()->getTimestamp())])->assertRedirect('/sign-in');

        $this->assertGuest();
    }

    public function test_codes_are_guessed_no_faster_than_passwords_though_the_password_is_right(): void
    {
        $person = PersonBuilder::aHelper()->withSecondFactor(OneTimeCode::make())->build();
        $refused = 0;
        for ($try = 0; $try < 12; $try++) {
            $this->elsewhere();
            $this->signIn($person);
            $answer = $this->post('/sign-in/code', ['code' => '000000']);
            $words = (string) $answer->baseResponse->getSession()?->get('errors')?->first();
            $refused += str_contains($words, 'not right') ? 1 : 0;
        }

        self::assertSame(5, $refused, 'from then on there is a wait, and the password alone does not end it');
        self::assertStringContainsString(
            'whose password was right but the code was not',
            RecordEntry::where('action', RecordKind::SignInRefused)->firstOrFail()->sentence,
        );
    }

    public function test_a_recovery_code_opens_once_and_the_record_tells_how_many_are_left(): void
    {
        $person = PersonBuilder::aHelper()->build();
        $codes = SecondFactor::begin($person, OneTimeCode::make(), 0);
        $typed = strtoupper(implode('-', str_split($codes[3]->reveal(), 5)));

        $this->signIn($person);
        $this->post('/sign-in/code', ['code' => $typed])->assertRedirect('/');
        self::assertCount(9, $person->refresh()->recovery_codes);
        $told = RecordEntry::where('action', RecordKind::RecoveryCodeUsed)->firstOrFail();
        self::assertStringContainsString('9 are left', $told->sentence);

        $this->elsewhere();
        $this->signIn($person);
        $this->post('/sign-in/code', ['code' => $typed])->assertSessionHasErrors('code');
    }

    public function test_no_secret_of_a_second_factor_lies_open_in_the_database(): void
    {
        $key = OneTimeCode::make();
        $person = PersonBuilder::aHelper()->build();
        $codes = SecondFactor::begin($person, $key, 0);

        $row = (string) json_encode(DB::table('people')->where('id', $person->id)->first());

        foreach ([$key->toBase32(), ...$codes] as $secret) {
            self::assertStringNotContainsStringIgnoringCase($secret->reveal(), $row);
        }
        self::assertStringNotContainsString('"second_factor"', (string) json_encode($person->refresh()));
    }

    public function test_a_role_that_needs_a_second_factor_sets_it_up_before_anything_else(): void
    {
        config(['cellarium.second_factor' => 'maintainers']);
        $this->signIn($this->person)->assertRedirect('/');
        $this->get('/')->assertRedirect('/me/second-factor');
        $this->get('/find', ['HX-Request' => 'true'])->assertHeader('HX-Redirect', '/me/second-factor');
        $page = $this->get('/me/second-factor')->assertOk()->assertSee('Set up the second factor');
        preg_match('/data-copy="([A-Z2-7]{32})"/', (string) $page->getContent(), $match);
        $key = OneTimeCode::fromBase32($match[1]);

        $this->post('/me/second-factor', ['code' => '12'])->assertSessionHasErrors('code');
        $this->post('/me/second-factor', ['code' => $key->at(now()->getTimestamp())])
            ->assertOk()
            ->assertSee('shown this once');

        self::assertTrue($this->person->refresh()->hasSecondFactor());
        $this->get('/')->assertOk();
        $this->post('/me/second-factor/end')->assertRedirect('/me');
        self::assertTrue($this->person->refresh()->hasSecondFactor(), 'the role needs it');
    }

    public function test_another_password_ends_the_sessions_elsewhere_and_not_this_one(): void
    {
        $this->actingAs($this->person);
        $elsewhere = session()->all();

        $this->post('/me/password', [
            'password' => 'gulls over slack water',
            'password_confirmation' => 'gulls over slack water',
        ])->assertRedirect('/me');
        $this->get('/accounts')->assertOk();

        $this->withSession($elsewhere)->get('/accounts')->assertRedirect('/sign-in');
        $this->assertGuest();
    }

    public function test_another_second_factor_ends_the_sessions_elsewhere(): void
    {
        $this->actingAs($this->person);
        $this->get('/accounts')->assertOk();

        SecondFactor::begin($this->person->refresh(), OneTimeCode::make(), 0);

        $this->app['auth']->forgetGuards();
        $this->get('/accounts')->assertRedirect('/sign-in');
    }

    public function test_a_password_that_is_short_or_easy_to_guess_is_not_taken(): void
    {
        $this->actingAs($this->person);
        foreach (
            [
                'short one' => '12 characters or more',
                'password password' => 'too easy to guess',
                'Rowan Aldous 2026' => 'too easy to guess',
            ] as $password => $words
        ) {
            $this->from('/me')
                ->followingRedirects()
                ->post('/me/password', ['password' => $password, 'password_confirmation' => $password])
                ->assertSee($words);
        }
        self::assertTrue(Hash::check(PersonBuilder::PASSWORD, (string) $this->person->refresh()->password));
    }

    public function test_everybody_signs_in_anew_after_half_a_day(): void
    {
        $this->signIn($this->person);
        $this->travel(11)->hours();
        $this->get('/accounts')->assertOk();
        $this->travel(2)->hours();

        $this->followingRedirects()->get('/accounts')->assertSee('You have been signed in for 12 hours');
    }

    public function test_who_has_changed_how_they_sign_in_is_told_by_mail(): void
    {
        $this->actingAs($this->person);
        $this->post('/me/password', [
            'password' => 'gulls over slack water',
            'password_confirmation' => 'gulls over slack water',
        ]);
        $mails = glob("$this->var/mail/*.eml") ?: [];
        self::assertCount(1, $mails);
        $mail = quoted_printable_decode((string) file_get_contents($mails[0]));
        self::assertStringContainsString('Your password for Cellarium was changed.', $mail);
        self::assertStringContainsString('From: 127.0.0.1', $mail);
        self::assertStringNotContainsString('gulls over', $mail);

        config(['mail.default' => 'smtp', 'mail.mailers.smtp.host' => '127.0.0.1', 'mail.mailers.smtp.port' => 1]);
        SecondFactor::begin($this->person->refresh(), OneTimeCode::make(), 0);
        self::assertTrue($this->person->refresh()->hasSecondFactor(), 'a mail server that is away hinders nobody');
    }

    public function test_after_the_applications_key_was_changed_recovery_codes_hold(): void
    {
        $person = PersonBuilder::aHelper()->build();
        $codes = SecondFactor::begin($person, OneTimeCode::make(), 0);
        config(['app.previous_keys' => [config('app.key')], 'app.key' => 'base64:'.base64_encode(random_bytes(32))]);

        self::assertTrue(SecondFactor::accepts($person->refresh(), $codes[0]->reveal()));
        self::assertFalse(SecondFactor::accepts($person->refresh(), $codes[0]->reveal()));
    }

    public function test_a_session_ends_when_nobody_uses_it(): void
    {
        config(['session.driver' => 'database', 'session.lifetime' => 30]);
        $this->app['session']->forgetDrivers();
        $session = $this->signIn($this->person)->getCookie('cellarium')?->getValue();
        $again = function () use ($session): TestResponse {
            $this->app['session']->forgetDrivers();
            $this->app['auth']->forgetGuards();

            return $this->withCookie('cellarium', (string) $session)->get('/accounts');
        };
        $this->travel(29)->minutes();
        $again()->assertOk();
        $this->travel(29)->minutes();
        $again()->assertOk();
        $this->travel(31)->minutes();
        $again()->assertRedirect('/sign-in');
    }

    public function test_signing_in_gives_another_session_identifier_and_so_does_showing_again_that_it_is_them(): void
    {
        $this->get('/sign-in');
        $before = session()->getId();
        $this->signIn($this->person);
        $in = session()->getId();
        $this->post('/sign-in/again', ['password' => PersonBuilder::PASSWORD])->assertRedirect('/');

        self::assertCount(3, array_unique([$before, $in, session()->getId()]));
    }

    public function test_whoever_signed_in_a_while_ago_shows_that_it_is_them_and_comes_back_to_where_they_were(): void
    {
        $this->signIn($this->person);
        $this->travel(16)->minutes();
        $this->get('/people/new')->assertRedirect('/sign-in/again');

        $this->post('/sign-in/again', ['password' => 'wrong'])->assertSessionHasErrors('password');
        $this->get('/people/new')->assertRedirect('/sign-in/again');
        $this->post('/sign-in/again', ['password' => PersonBuilder::PASSWORD])->assertRedirect('/people/new');
        $this->get('/people/new')->assertOk();
    }

    public function test_showing_again_that_it_is_them_takes_the_second_factor_too(): void
    {
        $key = OneTimeCode::make();
        $person = PersonBuilder::aMaintainer()->withSecondFactor($key)->build();
        $this->actingAs($person)->withSession(['fresh_at' => 0]);

        $this->post('/sign-in/again', ['password' => PersonBuilder::PASSWORD])->assertSessionHasErrors('password');
        $this->get('/people/new')->assertRedirect('/sign-in/again');
        $this->post('/sign-in/again', [
            'password' => PersonBuilder::PASSWORD,
            'code' => $key->at(now()->getTimestamp()),
        ])->assertRedirect('/people/new');
    }

    public function test_sessions_are_listed_and_ended_one_by_one(): void
    {
        config(['session.driver' => 'database']);
        $row = static fn (string $id, int $person): array => [
            'id' => $id,
            'user_id' => $person,
            'ip_address' => '192.0.2.7',
            'user_agent' => 'Mozilla/5.0 (X11; Linux x86_64) Gecko/20100101 Firefox/130.0',
            'payload' => '',
            'last_activity' => now()->getTimestamp(),
        ];
        $other = PersonBuilder::aHelper()->build();
        DB::table('sessions')->insert([
            $row(str_repeat('a', 40), $this->person->id),
            $row(str_repeat('b', 40), $this->person->id),
            $row(str_repeat('c', 40), $other->id),
        ]);
        $this->actingAs($this->person);

        $page = (string) $this->get('/me')->assertSee('Firefox on Linux')->assertSee('192.0.2.7')->getContent();
        self::assertStringNotContainsString(str_repeat('a', 40), $page, 'the identifier itself would open it');
        $name = substr(hash('sha256', str_repeat('a', 40)), 0, 20);
        $this->post('/me/sessions/end', ['which' => $name])->assertRedirect();
        $this->post('/me/sessions/end', ['which' => substr(hash('sha256', str_repeat('c', 40)), 0, 20)]);

        $left = DB::table('sessions')->whereIn('id', [
            str_repeat('a', 40),
            str_repeat('b', 40),
            str_repeat('c', 40),
        ])->orderBy('id')->pluck('id')->all();
        self::assertSame([str_repeat('b', 40), str_repeat('c', 40)], $left, 'nobody ends the sessions of another');
    }

    public function test_a_code_that_two_use_at_once_lets_one_in(): void
    {
        $key = OneTimeCode::make();
        $person = PersonBuilder::aHelper()->withSecondFactor($key)->build();
        $both = [$person->fresh(), $person->fresh()];
        $code = $key->at(now()->getTimestamp());

        self::assertSame([true, false], array_map(
            static fn (Person $one): bool => SecondFactor::accepts($one, $code),
            $both,
        ));
        $codes = SecondFactor::renewCodes($person);
        $both = [$person->fresh(), $person->fresh()];
        self::assertSame([true, false], array_map(
            static fn (Person $one): bool => SecondFactor::accepts($one, $codes[0]->reveal()),
            $both,
        ));
    }
}
