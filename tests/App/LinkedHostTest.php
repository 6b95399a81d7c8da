<?php

declare(strict_types=1);

namespace Tests\App;

use App\Accounts\AccountCheck;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Support\StandinHost;

/** Linking an account to the control service of its host, in the form. */
final class LinkedHostTest extends AppTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        isset($this->person) && $this->actingAs($this->person);
    }

    private function look(): void
    {
        app(AccountCheck::class)->connect($this->account);
        $this->account->refresh()->load('sites', 'client');
    }

    /** @return array<string, string> what the form sends for the account as it is, unlinked */
    private function unlinked(): array
    {
        return [
            'client' => (string) $this->account->client_id,
            'host' => $this->account->host,
            'port' => (string) $this->account->port,
            'protocol' => 'ftps',
            'login' => $this->account->login,
            'login_form' => '{name}@by-hand.example',
        ];
    }

    public function test_a_host_is_unlinked_in_the_form_and_its_token_goes_with_it(): void
    {
        $address = "/accounts/{$this->account->id}";
        $this->post($address, $this->unlinked())->assertRedirect($address);
        self::assertSame(
            [null, null, '{name}@by-hand.example'],
            [$this->account->refresh()->control_url, $this->account->control_token, $this->account->rules()->form],
        );
    }

    /** @return iterable<string, array{array<string, string>, string}> */
    public static function wrongLinks(): iterable
    {
        yield 'no port' => [['ftp_port' => '99999'], 'A port is a number'];
        yield 'http to elsewhere' => [
            ['control_url' => 'http://control.host.example', 'control_token' => 'x'],
            'could read the access token',
        ];
        yield 'a login in the address' => [
            ['control_url' => 'https://user:x@host.example/path', 'control_token' => 'x'],
            'scheme and name',
        ];
        yield 'a file' => [['control_url' => 'file:///etc', 'control_token' => 'x'], 'scheme and name'];
        yield 'another address for the token' => [
            ['control_url' => 'https://elsewhere.example'],
            'For another address the access token is typed in again',
        ];
    }

    /** @param  array<string, string>  $wrong */
    #[DataProvider('wrongLinks')]
    public function test_a_wrong_link_is_refused(array $wrong, string $words): void
    {
        $before = $this->account->control_url;
        $this->post("/accounts/{$this->account->id}", $wrong + $this->unlinked())
            ->assertStatus(422)
            ->assertSee($words);
        self::assertSame($before, $this->account->refresh()->control_url);
    }

    public function test_by_hand_the_form_of_logins_has_the_name_in_it(): void
    {
        $this->account->update(['control_url' => null, 'control_token' => null]);
        $this->post("/accounts/{$this->account->id}", ['login_form' => 'nobody'] + $this->unlinked())
            ->assertStatus(422)
            ->assertSee('has {name} in it once');
    }

    public function test_a_link_needs_its_token(): void
    {
        $right = (string) $this->account->control_url;
        $this->account->update(['control_url' => null, 'control_token' => null]);
        $address = "/accounts/{$this->account->id}";
        $this->post($address, ['control_url' => $right] + $this->unlinked())
            ->assertStatus(422)
            ->assertSee('The access token is missing');
        $this->post(
            $address,
            ['control_url' => "$right/", 'control_token' => ' '.StandinHost::TOKEN.' '] + $this->unlinked(),
        )->assertRedirect($address);
        self::assertSame(
            [$right, StandinHost::TOKEN],
            [$this->account->refresh()->control_url, $this->account->control_token],
        );
        $this->look();
        self::assertSame('{name}@site.example', $this->account->rules()->form, 'the host tells itself');
    }

    public function test_a_token_that_is_not_typed_stays_and_is_not_shown(): void
    {
        $right = (string) $this->account->control_url;
        $address = "/accounts/{$this->account->id}";
        $this->post($address, ['control_url' => $right] + $this->unlinked())->assertRedirect($address);
        self::assertSame(StandinHost::TOKEN, $this->account->refresh()->control_token);
        $this->get("$address/edit")
            ->assertOk()
            ->assertSee($right)
            ->assertDontSee(StandinHost::TOKEN);
    }
}
