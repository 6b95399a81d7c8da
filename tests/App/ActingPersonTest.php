<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Deployment;
use App\Models\Person;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use Cellarium\Core\People\OneTimeCode;
use Cellarium\Core\People\Role;
use Tests\Support\Builder\AccountBuilder;
use Tests\Support\Builder\PersonBuilder;

/** The console acts as somebody, within what they may, and mends what no page can when nobody signs in any more. */
final class ActingPersonTest extends AppTestCase
{
    public function test_the_console_acts_as_the_first_maintainer_and_is_recorded_as_that(): void
    {
        PersonBuilder::aMaintainer()->build();

        $deployment = $this->deployed();

        self::assertSame($this->person->id, $deployment->person_id);
        $entry = RecordEntry::where('action', RecordKind::DeploymentProven)->firstOrFail();
        self::assertSame(
            [$this->person->id, Role::Maintainer, 'console'],
            [$entry->person_id, $entry->role, $entry->address],
        );
    }

    public function test_it_acts_as_who_is_named(): void
    {
        $helper = PersonBuilder::aHelper()->build();

        [$status] = $this->artisanJson('deploy', 'site.example', $this->zip(), "--as=$helper->email");

        self::assertSame([0, $helper->id], [$status, Deployment::firstOrFail()->person_id]);
    }

    public function test_who_may_not_is_refused_and_nothing_is_done(): void
    {
        $helper = PersonBuilder::aHelper()->build();
        $clients = PersonBuilder::aPersonOf($this->account->client)->build();
        $closed = PersonBuilder::aMaintainer()->with(['closed_at' => now()])->build();
        foreach (
            [
                [['deploy', 'site.example', $this->zip()], $clients->email, 'may not do this'],
                [['accounts'], $clients->email, 'may not do this'],
                [['letter', $this->zip()], $helper->email, 'may not do this'],
                [['accounts'], $closed->email, 'Nobody who may sign in'],
                [['accounts'], 'nobody@marramtide.example', 'Nobody who may sign in'],
                [['person', 'new@marramtide.example', '--role=helper'], $helper->email, 'may not do this'],
            ] as [$command, $email, $words]
        ) {
            [$status, $said] = $this->artisanJson(...[...$command, "--as=$email"]);
            self::assertSame(1, $status, $command[0]);
            self::assertStringContainsString($words, $said['error'], $command[0]);
        }
        self::assertSame(0, Deployment::count());
    }

    public function test_of_a_clients_person_the_console_knows_what_is_theirs(): void
    {
        AccountBuilder::anAccount()->of('Kelpie Boatyard')->withSite('kelpie.example', '/www')->build();
        $clients = PersonBuilder::aPersonOf($this->account->client)->build();

        self::assertSame(0, $this->artisanJson(
            'address',
            'site.example',
            '/www/site.example',
            "--as=$clients->email",
        )[0]);
        [$status, $said] = $this->artisanJson('address', 'kelpie.example', '/www', "--as=$clients->email");
        $this->app['auth']->forgetGuards();
        [, $none] = $this->artisanJson('address', 'no-such.example', '/www', "--as=$clients->email");

        self::assertSame(1, $status);
        self::assertSame(str_replace('no-such', 'kelpie', $none['error']), $said['error']);
    }

    public function test_a_helper_is_shown_no_password_on_the_console(): void
    {
        $helper = PersonBuilder::aHelper()->build();
        $open = ['user-open', 'site.example', 'job', '--directory=/www/site.example', '--closes=job'];

        [$status, $said] = $this->artisanJson(...[...$open, '--hand-over', "--as=$helper->email"]);
        self::assertSame(1, $status);
        self::assertStringContainsString('handed over by maintainers', $said['error']);

        $this->account->update(['control_url' => null, 'control_token' => null]);
        [$status, $said] = $this->artisanJson(...[...$open, "--as=$helper->email"]);
        self::assertSame([3, '(a maintainer sees it)'], [$status, $said['to_do']['fields']['Password']]);
    }

    public function test_when_no_maintainer_signs_in_any_more_the_console_makes_one(): void
    {
        $this->person->update(['closed_at' => now()]);
        [$status, $said] = $this->artisanJson('accounts');
        self::assertSame(1, $status);
        self::assertStringContainsString('cellarium:person', $said['error']);

        [$status, $said] = $this->artisanJson(
            'person',
            'Groyne@marramtide.example',
            '--name=Linnet Groyne',
            '--role=maintainer',
        );

        self::assertSame([0, 'maintainer', 'open'], [$status, $said['role'], $said['state']]);
        $token = explode('#', $said['link'])[1];
        $this->post('/welcome', [
            'code' => $token,
            'password' => 'gulls over slack water',
            'password_confirmation' => 'gulls over slack water',
        ])->assertRedirect('/sign-in');
        $this->post('/sign-in', ['email' => 'groyne@marramtide.example', 'password' => 'gulls over slack water'])
            ->assertRedirect('/');
        $entry = RecordEntry::where('action', RecordKind::PersonInvited)->firstOrFail();
        self::assertSame([null, null], [$entry->person_id, $entry->role], 'nobody was named: it was the console');
    }

    public function test_the_console_takes_a_lost_second_factor_off_renews_closes_and_opens(): void
    {
        $lost = PersonBuilder::aMaintainer()->withSecondFactor(OneTimeCode::make())->build();
        [, $said] = $this->artisanJson('person', $lost->email, '--drop-second-factor');
        self::assertFalse($said['second_factor']);
        [, $said] = $this->artisanJson('person', $lost->email, '--renew-password');
        self::assertStringContainsString('/welcome#', $said['link']);
        self::assertNull($lost->refresh()->password);
        [, $said] = $this->artisanJson('person', $lost->email, '--close');
        self::assertSame('closed', $said['state']);
        [, $said] = $this->artisanJson('person', $lost->email, '--open', '--role=helper');
        self::assertSame(['open', 'helper'], [$said['state'], $said['role']]);
        [$status, $said] = $this->artisanJson('person', $this->person->email, '--close');
        self::assertSame(1, $status);
        self::assertStringContainsString('last maintainer', $said['error']);
        self::assertSame(1, Person::open()->where('role', Role::Maintainer)->count());
    }
}
