<?php

declare(strict_types=1);

namespace Tests\App;

use App\FtpUsers\FtpUsers;
use App\Models\Client;
use App\Models\FtpUser;
use App\Models\HandOver;
use App\Models\RecordEntry;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Support\Builder\PersonBuilder;

/** Settings are handed over once: shown, or by a link that opens a single time. */
final class HandOverTest extends AppTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        isset($this->person) && $this->actingAs($this->person);
    }

    /** @return string the code at the end of a link that was made for it */
    private function linkCode(FtpUser $user, int $hours = 8): string
    {
        $page = $this->actingAs($this->person)
            ->post("/ftp-users/$user->id/hand-over", ['how' => 'link', 'hours' => (string) $hours])
            ->assertOk();
        preg_match('#id="link"[^>]*>([^<]+)<#', (string) $page->getContent(), $link);

        return (string) parse_url($link[1], PHP_URL_FRAGMENT);
    }

    public function test_settings_are_shown_once(): void
    {
        $user = $this->ftpUser();
        $this->actingAs($this->person)
            ->post("/ftp-users/$user->id/hand-over", ['how' => 'show'])
            ->assertOk()
            ->assertSee((string) $user->secret)
            ->assertSee('ftp://job%40site.example@ftp.host.example:')
            ->assertSee("job%40site.example:$user->secret@");
        $this->from('/')
            ->post("/ftp-users/$user->id/hand-over", ['how' => 'show'])
            ->assertSessionHas('trouble');
    }

    public function test_the_code_of_a_link_is_written_down_nowhere_and_the_password_forgotten(): void
    {
        $user = $this->ftpUser();
        $user->update(['forgets' => true]);
        $code = $this->linkCode($user);
        self::assertNull($user->refresh()->secret);
        self::assertSame(43, strlen($code));
        self::assertStringNotContainsString($code, (string) json_encode(HandOver::first()?->getAttributes()));
    }

    public function test_a_link_opens_a_single_time_for_who_gives_a_name(): void
    {
        $user = $this->ftpUser();
        $code = $this->linkCode($user);
        auth()->forgetUser();
        $this->get('/hand-over')->assertOk()->assertSee('wait for you')->assertDontSee('job@site.example');
        $this->post('/hand-over', ['by' => 'Mona Sandpiper', 'code' => $code])
            ->assertOk()
            ->assertSee('job@site.example')
            ->assertHeader('Cache-Control', 'no-store, private');
        $this->post('/hand-over', ['by' => 'somebody else', 'code' => $code])
            ->assertNotFound()
            ->assertDontSee('job@site.example')
            ->assertSee('opened already, was withdrawn, or its time is over');
        $this->actingAs($this->person)
            ->get("/ftp-users/$user->id")
            ->assertSee('by Mona Sandpiper, from 127.0.0.1');
        self::assertTrue(RecordEntry::where('sentence', 'like', '%opened by Mona Sandpiper%')->exists());
    }

    public function test_a_link_opens_for_who_is_signed_in_as_another_clients_person(): void
    {
        $code = $this->linkCode($this->ftpUser());
        $other = Client::create(['name' => 'Kelpie Boatyard', 'colour' => '#112233']);

        $this->actingAs(PersonBuilder::aPersonOf($other)->build())
            ->post('/hand-over', ['by' => 'Mona Sandpiper', 'code' => $code])
            ->assertOk()
            ->assertSee('job@site.example');
    }

    public function test_without_a_name_or_with_another_code_nothing_opens(): void
    {
        $code = $this->linkCode($this->ftpUser());
        auth()->forgetUser();
        foreach ([['by' => ' ', 'code' => $code], ['by' => 'Mona', 'code' => '']] as $wrong) {
            $this->from('/hand-over')->post('/hand-over', $wrong)->assertRedirect('/hand-over');
        }
        $this->post('/hand-over', ['by' => 'Mona', 'code' => strrev($code)])->assertNotFound();
        self::assertNull(HandOver::firstOrFail()->opened_at);
    }

    /** @return iterable<string, array{\Closure(self): mixed}> */
    public static function ends(): iterable
    {
        yield 'its time is over' => [static fn (self $test) => $test->travel(2)->hours()];
        yield 'it was withdrawn' => [
            static fn (self $test) => $test->post('/hand-overs/'.HandOver::firstOrFail()->id.'/withdraw'),
        ];
        yield 'the user was closed' => [
            static fn () => app(FtpUsers::class)->close(
                FtpUser::with('account.client', 'account.sites')->firstOrFail(),
                'by hand',
            ),
        ];
    }

    /** @param  \Closure(self): mixed  $ends */
    #[DataProvider('ends')]
    public function test_a_link_opens_nothing_once(\Closure $ends): void
    {
        $code = $this->linkCode($this->ftpUser(), 1);
        $ends($this);
        $this->post('/hand-over', ['by' => 'late', 'code' => $code])->assertNotFound();
        self::assertNull(HandOver::firstOrFail()->opened_at);
    }
}
