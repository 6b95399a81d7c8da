<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Account;
use App\Models\Client;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use Illuminate\Support\Facades\DB;
use Tests\Support\StandinHost;

/** An account is added from a letter or by hand: only when all is right, and nothing typed is lost. */
final class AddAccountTest extends AppTestCase
{
    private const LETTER = "Your FTP access\nHost: https://www.FTP.host.example:4711/x\nUser: second\nPassword: "
        ."Tide-table-4711-Known\nDirectory: /www/second\nDomain: second.example\n";

    protected function setUp(): void
    {
        parent::setUp();
        $this->actingAs($this->person);
    }

    /** @return array<string, string> */
    private function typed(): array
    {
        return [
            'client' => (string) $this->account->client_id,
            'host' => StandinHost::HOST,
            'port' => (string) $this->host->ftpPort,
            'protocol' => 'ftps',
            'login' => 'second',
            'password' => StandinHost::PASSWORD,
        ];
    }

    public function test_a_letter_fills_the_form_and_marks_what_was_found_where(): void
    {
        $this->post('/accounts/letter', ['letter' => self::LETTER])
            ->assertOk()
            ->assertSee('value="ftp.host.example"', false)
            ->assertSee('value="4711"', false)
            ->assertSee('value="second"', false)
            ->assertSee('value="second.example"', false)
            ->assertSee('value="/www/second"', false)
            ->assertSee('<mark>second<small>login</small></mark>', false)
            ->assertSee('Scheme https:// taken off', false);
    }

    public function test_a_letter_is_stored_nowhere(): void
    {
        $this->post('/accounts/letter', ['letter' => self::LETTER])->assertHeader('Cache-Control', 'no-store, private');
        self::assertSame(1, Account::count());
        self::assertStringNotContainsString(StandinHost::PASSWORD, (string) json_encode(session()->all()));
    }

    public function test_a_letter_says_what_stands_where_a_password_should(): void
    {
        $this->post('/accounts/letter', [
            'letter' => "FTP\nHost: ftp.host.example\nLogin:&nbsp;otter\nPassword: sent separately",
        ])
            ->assertOk()
            ->assertSee('The letter says: sent separately')
            ->assertSee('HTML entities were turned into characters');
    }

    public function test_a_letter_with_two_readings_offers_the_other(): void
    {
        $this->post('/accounts/letter', [
            'letter' => "FTP\nHost: ftp.host.example\nLogin: otter\nPassword: Xy12-first\nPassword: Xy12-other",
        ])
            ->assertOk()
            ->assertSee('data-fill="password" data-value="Xy12-other"', false)
            ->assertSee('Use the other reading');
    }

    public function test_a_letter_without_an_account_and_one_with_two(): void
    {
        $this->post('/accounts/letter', ['letter' => 'Dear client, thank you.'])
            ->assertOk()
            ->assertSee('No account was found in this letter');
        $this->post('/accounts/letter', [
            'letter' => "FTP host: a.example\nLogin: x1\nPassword: y1\n\nFTP host: b.example\nLogin: x2\nPassword: y2",
            'number' => 1,
        ])
            ->assertOk()
            ->assertSee('2 accounts stand in this letter')
            ->assertSee('value="b.example"', false);
    }

    public function test_a_refused_form_gives_back_all_that_was_typed(): void
    {
        $wrong = [
            'host' => 'not a host',
            'port' => '70000',
            'password' => 'kept-as-typed',
            'notes' => 'typed notes',
        ];
        $this->post('/accounts', $wrong + $this->typed())
            ->assertStatus(422)
            ->assertSee('2 things are')
            ->assertSee('value="kept-as-typed"', false)
            ->assertSee('typed notes')
            ->assertSee('A port is a number from 1 to 65535');
        self::assertSame([1, 1], [Account::count(), Client::count()]);
    }

    public function test_an_account_has_a_client_and_is_there_once(): void
    {
        $this->post('/accounts', ['client' => ''] + $this->typed())
            ->assertStatus(422)
            ->assertSee('Choose whose account it is');
        $this->post('/accounts', ['login' => StandinHost::LOGIN] + $this->typed())
            ->assertStatus(422)
            ->assertSee('is known already');
        self::assertSame([1, 1], [Account::count(), Client::count()]);
    }

    private function added(): Account
    {
        $this->post(
            '/accounts',
            [
                'new_client' => 'Kelpie Boatyard',
                'host' => 'ftp://FTP.host.example/x',
                'login' => " second\u{200B} ",
                'domain' => 'https://www.kelpie.example/',
                'document_root' => 'htdocs',
                'tags' => 'boats, coast',
            ] + $this->typed(),
        )->assertRedirect();

        return Account::with('client', 'sites')->latest('id')->firstOrFail();
    }

    public function test_what_was_pasted_is_cleaned_and_the_secret_encrypted(): void
    {
        $account = $this->added();
        self::assertSame(
            [
                'Kelpie Boatyard',
                'ftp.host.example',
                $this->host->ftpPort,
                'second',
                StandinHost::PASSWORD,
                ['boats', 'coast'],
            ],
            [$account->client->name, $account->host, $account->port, $account->login, $account->secret, $account->tags],
        );
        self::assertSame(
            ['kelpie.example', '/htdocs', null],
            [$account->sites[0]->domain, $account->sites[0]->document_root, $account->sites[0]->root_proven_at],
        );
        self::assertStringNotContainsString(StandinHost::PASSWORD, (string) json_encode(DB::table('accounts')->get()));
        self::assertSame(RecordKind::AccountAdded, RecordEntry::latest('id')->firstOrFail()->action);
    }

    public function test_a_password_that_is_not_typed_stays_and_is_not_shown(): void
    {
        $account = $this->added();
        $this->post(
            "/accounts/$account->id",
            ['password' => '', 'label' => 'The boats', 'client' => (string) $account->client_id] + $this->typed(),
        )->assertRedirect();
        self::assertSame(['The boats', StandinHost::PASSWORD], [$account->refresh()->label, $account->secret]);
        $this->get("/accounts/$account->id/edit")
            ->assertOk()
            ->assertDontSee(StandinHost::PASSWORD);
    }

    public function test_what_is_known_of_a_connection_stays_until_it_leads_elsewhere(): void
    {
        $account = $this->added();
        $account
            ->forceFill([
                'trouble' => 'unreachable',
                'tried_at' => now(),
                'known_address' => '192.0.2.1',
                'pin' => ['fingerprint' => 'x', 'key' => 'y'],
            ])
            ->save();
        $form = ['client' => (string) $account->client_id] + $this->typed();
        $this->post(
            "/accounts/$account->id",
            ['password' => '', 'label' => 'Only the label'] + $form,
        )->assertRedirect();
        self::assertSame(['unreachable', 'x'], [$account->refresh()->trouble, $account->pin['fingerprint']]);
        $this->post(
            "/accounts/$account->id",
            ['password' => 'typed-anew', 'host' => 'moved.example'] + $form,
        )->assertRedirect();
        self::assertSame(
            [null, null, null, null],
            [$account->refresh()->trouble, $account->tried_at, $account->known_address, $account->pin],
        );
    }
}
