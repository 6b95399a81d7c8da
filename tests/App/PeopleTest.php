<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\OneTimeLink;
use App\Models\Person;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use App\People\SessionBond;
use Cellarium\Core\People\OneTimeCode;
use Cellarium\Core\People\Role;
use Illuminate\Database\Events\QueryExecuted;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use Tests\Support\Builder\PersonBuilder;

/** Who works here: invited by a link, changed, closed, opened; each step in the record. */
final class PeopleTest extends AppTestCase
{
    protected const HOST_IS_ONLY_READ = true;

    protected function setUp(): void
    {
        parent::setUp();
        $this->actingAs($this->person);
    }

    /** @param  array<string, mixed>  $facts */
    private function invite(array $facts = []): TestResponse
    {
        return $this->post('/people', $facts + [
            'name' => 'Wren Tideway',
            'email' => 'Tideway@marramtide.example',
            'role' => 'helper',
            'revision' => '0',
        ]);
    }

    private static function token(TestResponse $page): string
    {
        preg_match('~/welcome#([\w-]{43})<~', (string) $page->getContent(), $match);

        return $match[1] ?? self::fail('no link is shown');
    }

    private function choose(string $token, string $password = 'gulls over slack water'): TestResponse
    {
        return $this->post('/welcome', [
            'code' => $token,
            'password' => $password,
            'password_confirmation' => $password,
        ]);
    }

    private static function told(RecordKind $kind): string
    {
        return RecordEntry::where('action', $kind)->latest('id')->firstOrFail()->sentence;
    }

    private function act(string $what, Person $person): TestResponse
    {
        return $this->post("/people/$person->id/$what", ['revision' => (string) $person->refresh()->revision]);
    }

    public function test_who_is_invited_chooses_a_password_by_a_link_that_works_once(): void
    {
        $token = self::token($this->invite()->assertOk()->assertSee('shown this once'));
        $invited = Person::where('email', 'tideway@marramtide.example')->firstOrFail();
        self::assertSame([Role::Helper, null], [$invited->role, $invited->password]);
        self::assertStringContainsString('Wren Tideway was invited as helper', self::told(RecordKind::PersonInvited));
        self::assertStringNotContainsString($token, (string) json_encode(DB::table('one_time_links')->get()));

        $this->get('/welcome')->assertOk();
        $this->choose($token, 'too short')->assertSessionHasErrors('password');
        $this->choose($token)->assertRedirect('/sign-in');
        $this->choose($token, 'another tide table')->assertSessionHasErrors('code');

        $this->flushSession();
        $this->app['auth']->forgetGuards();
        $this->post('/sign-in', ['email' => $invited->email, 'password' => 'gulls over slack water'])
            ->assertRedirect('/');
        $this->assertAuthenticatedAs($invited);
    }

    public function test_a_link_is_not_used_up_when_the_password_could_not_be_written_down(): void
    {
        $token = self::token($this->invite());
        $invited = Person::latest('id')->firstOrFail();
        $breaks = true;
        DB::listen(static function (QueryExecuted $query) use (&$breaks): void {
            if ($breaks && str_contains($query->sql, 'insert into `record_entries`')) {
                throw new \RuntimeException('The plug was pulled.');
            }
        });

        $this->choose($token)->assertServerError();
        self::assertNull($invited->refresh()->password);
        $breaks = false;
        $this->choose($token)->assertRedirect('/sign-in');
        self::assertNotNull($invited->refresh()->password);
    }

    public function test_a_link_ends_by_itself_and_when_another_is_made(): void
    {
        $first = self::token($this->invite());
        $invited = Person::latest('id')->firstOrFail();
        $second = self::token($this->act('renew-password', $invited));
        $this->choose($first)->assertSessionHasErrors('code');
        $this->travel(73)->hours();
        $this->choose($second)->assertSessionHasErrors('code');
        self::assertNull($invited->refresh()->password);
        self::assertSame(1, OneTimeLink::count());
    }

    public function test_nobody_is_invited_twice_or_without_a_client_where_the_role_needs_one(): void
    {
        $this->invite(['email' => 'aldous@marramtide.example'])->assertSessionHasErrors('email');
        $this->invite(['role' => 'clients_person'])->assertSessionHasErrors('client_id');
        $this->invite(['role' => 'emperor'])->assertSessionHasErrors('role');
        $this->invite(['name' => "Wren\nTideway"])->assertSessionHasErrors('name');
        self::assertSame(1, Person::count());
    }

    public function test_who_is_closed_is_signed_out_at_once_and_stays_in_the_record(): void
    {
        $helper = PersonBuilder::aHelper()->build();
        $this->actingAs($helper)->get('/accounts')->assertOk();
        $theirs = session()->all();
        DB::table('sessions')->insert([
            'id' => 'x',
            'user_id' => $helper->id,
            'payload' => '',
            'last_activity' => now()->getTimestamp(),
        ]);

        $this->actingAs($this->person);
        $this->act('close', $helper)->assertRedirect('/people');

        self::assertStringContainsString(
            "$helper->name was closed; 1 session ended",
            self::told(RecordKind::PersonClosed),
        );
        self::assertSame(0, DB::table('sessions')->where('user_id', $helper->id)->count());
        $this->flushSession();
        $this->app['auth']->forgetGuards();
        $this->withSession($theirs)->actingAsIn($theirs, $helper)->get('/accounts')->assertRedirect('/sign-in');
        $this->post('/sign-in', ['email' => $helper->email, 'password' => PersonBuilder::PASSWORD])
            ->assertSessionHasErrors('email');
    }

    /** @param  array<string, mixed>  $session */
    private function actingAsIn(array $session, Person $person): self
    {
        parent::actingAs($person->refresh());
        $this->withSession($session);

        return $this;
    }

    public function test_who_is_opened_again_signs_in_as_before(): void
    {
        $helper = PersonBuilder::aHelper()->build();
        $this->act('close', $helper);
        $this->act('open', $helper)->assertRedirect("/people/$helper->id");

        $this->flushSession();
        $this->app['auth']->forgetGuards();
        $this->post('/sign-in', ['email' => $helper->email, 'password' => PersonBuilder::PASSWORD])
            ->assertRedirect('/');
    }

    public function test_the_last_maintainer_who_can_sign_in_is_neither_closed_nor_made_less(): void
    {
        PersonBuilder::aMaintainer()->with(['password' => null])->build(); // Invited only.
        PersonBuilder::aMaintainer()->with(['closed_at' => now()])->build();

        $page = "/people/{$this->person->id}";
        $this->followingRedirects()->from($page);
        $this->act('close', $this->person)->assertSee('is the last maintainer who can sign in');
        $this->followingRedirects()->from($page)->post($page, [
            'name' => $this->person->name,
            'email' => $this->person->email,
            'role' => 'helper',
            'revision' => '0',
        ])->assertSee('is the last maintainer who can sign in');

        self::assertSame([Role::Maintainer, false], [$this->person->refresh()->role, $this->person->isClosed()]);
    }

    public function test_of_two_who_change_the_same_person_the_second_is_told(): void
    {
        $helper = PersonBuilder::aHelper()->build();
        $seen = [
            'revision' => '0',
            'name' => 'Wren Tideway-Holm',
            'email' => $helper->email,
            'role' => 'helper',
        ];
        $this->post("/people/$helper->id", $seen)->assertRedirect('/people');

        $this->followingRedirects()
            ->post("/people/$helper->id", ['role' => 'maintainer'] + $seen)
            ->assertSee('was changed by somebody else since you opened this page');

        self::assertSame(['Wren Tideway-Holm', Role::Helper], [$helper->refresh()->name, $helper->role]);
    }

    public function test_another_role_ends_the_sessions_and_stands_in_the_record(): void
    {
        $helper = PersonBuilder::aHelper()->build();
        DB::table('sessions')->insert([
            'id' => 'x',
            'user_id' => $helper->id,
            'payload' => '',
            'last_activity' => 1,
        ]);

        $this->post("/people/$helper->id", [
            'name' => $helper->name,
            'email' => $helper->email,
            'role' => 'clients_person',
            'client_id' => (string) $this->account->client_id,
            'revision' => '0',
        ])->assertRedirect('/people');

        self::assertSame(0, DB::table('sessions')->count());
        self::assertSame(
            'Wren Tideway was helper and is client’s person now of Pilgrim Stones Hostel',
            self::told(RecordKind::PersonChanged),
        );
    }

    public function test_a_renewed_password_opens_nothing_any_more(): void
    {
        $helper = PersonBuilder::aHelper()->build();
        $bond = SessionBond::values($helper);

        $this->act('renew-password', $helper)->assertOk();

        self::assertNull($helper->refresh()->password);
        self::assertNotSame($bond['bond'], SessionBond::values($helper)['bond']);
        $this->flushSession();
        $this->app['auth']->forgetGuards();
        $this->post('/sign-in', ['email' => $helper->email, 'password' => PersonBuilder::PASSWORD])
            ->assertSessionHasErrors('email');
        $this->post('/sign-in', ['email' => $helper->email, 'password' => ''])->assertSessionHasErrors('password');
    }

    public function test_a_lost_second_factor_is_taken_off_by_a_maintainer(): void
    {
        $helper = PersonBuilder::aHelper()->withSecondFactor(OneTimeCode::make())->build();

        $this->act('drop-second-factor', $helper)->assertRedirect("/people/$helper->id");

        self::assertFalse($helper->refresh()->hasSecondFactor());
        self::assertStringContainsString('was taken off', self::told(RecordKind::SecondFactorDropped));
        $entry = RecordEntry::where('action', RecordKind::SecondFactorDropped)->firstOrFail();
        self::assertSame(
            [$this->person->id, Role::Maintainer, '127.0.0.1'],
            [$entry->person_id, $entry->role, $entry->address],
        );
    }

    public function test_the_list_shows_roles_and_who_is_closed_apart(): void
    {
        PersonBuilder::aPersonOf($this->account->client)->mayFetchBackups()->build();
        PersonBuilder::aHelper()->with(['name' => 'Gone Away', 'closed_at' => now()])->build();

        $this->get('/people')
            ->assertSee('Maud Ostler')
            ->assertSee('Pilgrim Stones Hostel, may download backups')
            ->assertSee('Closed: 1')
            ->assertDontSee('Gone Away');
        $this->get('/people?q=pilgrim')->assertSee('Maud Ostler')->assertDontSee('Rowan Aldous</a>', false);
        $this->get('/people?q=%25')->assertSee('Nobody here fits');
        $this->get('/people?closed=1')->assertSee('Gone Away')->assertDontSee('Maud Ostler');
    }
}
