<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\ClientRequest;
use App\Models\ClientRequestKind;
use App\Models\OwnSettings;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use Carbon\CarbonImmutable;
use Tests\Support\Builder\PersonBuilder;

/** What everybody chooses for themselves: time zone, 12 or 24 hours, colours, what comes by e-mail. */
final class OwnSettingsTest extends AppTestCase
{
    protected const HOST_IS_ONLY_READ = true;

    /** @param  array<string, mixed>  $settings */
    private function save(array $settings): void
    {
        $this->post('/me', $settings + [
            'time_zone' => '',
            'clock' => '24',
            'scheme' => 'system',
            'mail' => 'none',
        ])
            ->assertRedirect('/me');
    }

    public function test_times_are_shown_in_their_time_zone_and_with_their_hours(): void
    {
        CarbonImmutable::setTestNow('2026-01-15 22:30:00');
        $this->site->update(['live_proven_at' => now(), 'placeholder' => false]);
        $this->actingAs($this->person);
        $page = "/sites/{$this->site->id}";
        $this->get($page)->assertSee('15 Jan 2026 22:30');

        $this->save(['time_zone' => 'Asia/Kolkata', 'clock' => '12']);

        $this->actingAs($this->person->refresh())->get($page)->assertSee('16 Jan 2026 4:00 am');
        $this->actingAs(PersonBuilder::aHelper()->build())->get($page)->assertSee('15 Jan 2026 22:30');
    }

    public function test_a_closing_time_is_meant_in_their_time_zone_and_recorded_in_that_of_cellarium(): void
    {
        $this->person->update(['settings' => new OwnSettings('Asia/Kolkata')]);
        $user = $this->ftpUser();
        $at = CarbonImmutable::now('Asia/Kolkata')->addDays(3)->setTime(18, 0);
        $this->actingAs($this->person->refresh());

        $this->post("/ftp-users/$user->id/closing", ['ends' => 'time', 'closes' => $at->format('Y-m-d\TH:i')])
            ->assertRedirect();

        self::assertTrue($at->equalTo($user->refresh()->closes_at));
        $this->get("/ftp-users/$user->id")
            ->assertSee('value="'.$at->format('Y-m-d\TH:i').'"', false)
            ->assertSee($at->format('j M Y').' 18:00');
        self::assertStringContainsString(
            $at->setTimezone('UTC')->format('j M Y H:i'),
            RecordEntry::where('action', RecordKind::FtpUserChanged)->latest('id')->firstOrFail()->sentence,
        );
    }

    public function test_the_colours_they_chose_go_before_the_devices(): void
    {
        $this->actingAs($this->person);
        $this->get('/')->assertDontSee('data-theme');
        $this->save(['scheme' => 'dark']);
        $this->actingAs($this->person->refresh())->get('/')->assertSee('data-theme="dark"', false);
    }

    public function test_what_is_no_choice_is_refused(): void
    {
        $this->actingAs($this->person);
        foreach ([
            'time_zone' => 'Mars/Olympus',
            'clock' => '25',
            'scheme' => 'pink',
            'mail' => 'hourly',
        ] as $field => $value) {
            $this->post('/me', [$field => $value] + [
                'time_zone' => '',
                'clock' => '24',
                'scheme' => 'system',
                'mail' => 'none',
            ])->assertSessionHasErrors($field);
        }
    }

    /** @return list<string> the mails that were written, read */
    private function mails(): array
    {
        return array_map(
            static fn (string $file): string => quoted_printable_decode((string) file_get_contents($file)),
            glob("$this->var/mail/*.eml") ?: [],
        );
    }

    public function test_concerns_come_by_mail_once_as_long_as_they_stand(): void
    {
        $this->person->update(['settings' => new OwnSettings(mail: 'all')]);
        self::assertSame(['ok' => true, 'sent' => 1], $this->artisanJson('mail-concerns')[1]);
        $mail = $this->mails()[0];
        self::assertStringContainsString('To: Rowan Aldous <aldous@marramtide.example>', $mail);
        self::assertStringContainsString('No backup yet: site.example', $mail);
        self::assertSame(0, $this->artisanJson('mail-concerns')[1]['sent'], 'it was told already');

        $this->site->update(['last_backup_at' => now()]);
        self::assertSame(0, $this->artisanJson('mail-concerns')[1]['sent']);
        $this->site->update(['last_backup_at' => null]);
        self::assertSame(1, $this->artisanJson('mail-concerns')[1]['sent'], 'it came back');
    }

    public function test_who_wants_what_is_pressing_or_nothing_gets_that(): void
    {
        $this->person->update(['settings' => new OwnSettings(mail: 'now')]);
        self::assertSame(0, $this->artisanJson('mail-concerns')[1]['sent'], 'a missing backup has time');
        $this->account->update(['trouble' => "Down\r\nBcc: all@marramtide.example", 'tried_at' => now()]);
        self::assertSame(1, $this->artisanJson('mail-concerns')[1]['sent']);
        self::assertDoesNotMatchRegularExpression('/^Bcc:/m', explode("\r\n\r\n", $this->mails()[0])[0]);
        $this->person->update(['closed_at' => now(), 'settings' => new OwnSettings(mail: 'all')]);
        self::assertSame(0, $this->artisanJson('mail-concerns')[1]['sent'], 'nor does who is closed');
    }

    public function test_who_chose_kinds_gets_these(): void
    {
        $this->actingAs($this->person);
        $this->save(['mail' => 'chosen', 'kinds' => ['connection']]);
        self::assertSame(0, $this->artisanJson('mail-concerns')[1]['sent'], 'a missing backup is another kind');
        $this->account->update(['trouble' => 'Down', 'tried_at' => now()]);
        self::assertSame(1, $this->artisanJson('mail-concerns')[1]['sent']);
        $this->post('/me', [
            'clock' => '24',
            'scheme' => 'light',
            'mail' => 'chosen',
            'kinds' => ['weather'],
        ])
            ->assertSessionHasErrors('kinds.0');
    }

    public function test_a_clients_person_is_told_of_answers_and_of_nothing_else(): void
    {
        $clients = PersonBuilder::aPersonOf($this->account->client)
            ->with(['settings' => new OwnSettings(mail: 'all')])
            ->build();
        self::assertSame(0, $this->artisanJson('mail-concerns')[1]['sent']);
        ClientRequest::create([
            'client_id' => $clients->client_id,
            'person_id' => $clients->id,
            'kind' => ClientRequestKind::Change,
            'words' => 'New hours.',
            'answered_at' => now(),
            'answered_by' => $this->person->id,
            'answer' => 'Done.',
        ]);
        self::assertSame(1, $this->artisanJson('mail-concerns')[1]['sent']);
        self::assertStringContainsString('Rowan Aldous answers: Done.', $this->mails()[0]);
        self::assertStringNotContainsString('No backup', $this->mails()[0]);
    }

    public function test_a_mail_that_cannot_be_sent_is_said_and_tried_again(): void
    {
        $this->person->update(['settings' => new OwnSettings(mail: 'all')]);
        config(['mail.default' => 'smtp', 'mail.mailers.smtp.host' => '127.0.0.1', 'mail.mailers.smtp.port' => 1]);
        [$status, $said] = $this->artisanJson('mail-concerns');
        self::assertSame(1, $status);
        self::assertStringContainsString('1 mails could not be sent', $said['error']);
        config(['mail.default' => 'file']);
        self::assertSame(1, $this->artisanJson('mail-concerns')[1]['sent']);
    }
}
