<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Account;
use App\Models\Client;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use Illuminate\Http\UploadedFile;
use Tests\Support\StandinHost;

/** Lists of accounts come in whole or not at all, and go out without secrets or encrypted. */
final class AccountListTest extends AppTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->actingAs($this->person);
    }

    /** @param  array<string, mixed>  $typed */
    private function do(string $url, array $typed = []): \Illuminate\Testing\TestResponse
    {
        return $this->followingRedirects()->post($url, $typed);
    }

    /** @return array{list: UploadedFile} */
    private static function csv(string ...$rows): array
    {
        return [
            'list' => UploadedFile::fake()->createWithContent(
                'list.csv',
                "Customer;FTP server;Port;User;Password;Domain;Folder;Odd\n".implode("\n", $rows)."\n",
            ),
        ];
    }

    /** @return list<string> one as it is, one new with two sites */
    private function good(): array
    {
        return [
            "Pilgrim Stones Hostel;ftp.host.example;{$this->host->ftpPort};harbour;"
                .StandinHost::PASSWORD
                .';site.example;/www/site.example;',
            'Kelpie Boatyard;ftp.ternmast.example;;kelpie;Oar-Secret-1;kelpie.example;htdocs;',
            'Kelpie Boatyard;ftp.ternmast.example;;kelpie;Oar-Secret-1;two.kelpie.example;two;',
        ];
    }

    private function waiting(): string
    {
        return basename((glob("$this->var/lists/*") ?: [''])[0]);
    }

    public function test_a_preview_says_for_each_row_what_would_be_done_and_hides_its_secrets(): void
    {
        $this->do('/accounts/import', self::csv(...[...$this->good(), ';no-host;;x;;;;']))
            ->assertOk()
            ->assertSee('1 refused')
            ->assertSee('1 new')
            ->assertSee('1 the same')
            ->assertSee('All or nothing')
            ->assertSee('the client is missing')
            ->assertDontSee('Oar-Secret-1');
        self::assertStringNotContainsString(
            'Oar-Secret-1',
            (string) file_get_contents("$this->var/lists/{$this->waiting()}"),
        );
    }

    public function test_with_one_row_refused_nothing_is_imported(): void
    {
        $this->do('/accounts/import', self::csv(...[...$this->good(), ';no-host;;x;;;;']));
        $this->do("/accounts/import/{$this->waiting()}")->assertSee('nothing was imported');
        self::assertSame([1, 1], [Account::count(), Client::count()]);
    }

    public function test_a_good_list_is_imported_whole_and_then_gone(): void
    {
        $this->do('/accounts/import', self::csv(...$this->good()))
            ->assertSee('Import 2 rows')
            ->assertSee('another site of the account in line 3');
        $name = $this->waiting();
        $this->do("/accounts/import/$name")->assertSee('Imported: 1 new, 1 changed, 1 the same');
        $account = Account::with('sites')->where('login', 'kelpie')->firstOrFail();
        self::assertSame(
            ['ftps', 21, 'Oar-Secret-1', ['kelpie.example', 'two.kelpie.example']],
            [$account->protocol->value, $account->port, $account->secret, $account->sites->pluck('domain')->all()],
        );
        self::assertFileDoesNotExist("$this->var/lists/$name");
        $this->get("/accounts/import/$name")->assertSee('no longer here');
        $this->get("/accounts/import/$name?columns[0]=host")->assertStatus(422);
    }

    public function test_the_list_goes_out_without_secrets_and_comes_back_the_same(): void
    {
        $plain = $this->post('/accounts/export')->assertOk()->streamedContent();
        self::assertStringContainsString('site.example', $plain);
        self::assertStringNotContainsString(StandinHost::PASSWORD, $plain);
        $this->do('/accounts/import', ['text' => $plain])
            ->assertSee('1 the same')
            ->assertSee('0 changed');
        self::assertSame(1, RecordEntry::where('action', RecordKind::ListExported)->count());
    }

    private const PASSPHRASE = 'five loose words about tide-tables';

    /** @return array<string, string> */
    private static function asked(): array
    {
        return [
            'passphrase' => self::PASSPHRASE,
            'passphrase_again' => self::PASSPHRASE,
        ];
    }

    public function test_secrets_go_out_under_a_good_passphrase_only(): void
    {
        foreach (
            [
                [['passphrase_again' => 'x'], 'not the same'],
                [['passphrase' => 'short', 'passphrase_again' => 'short'], 'too easy to guess'],
            ] as [$wrong, $words]
        ) {
            $this->do('/accounts/export-secrets', $wrong + self::asked())->assertSee($words);
        }
        self::assertSame(0, RecordEntry::where('action', RecordKind::ListExported)->count());
    }

    public function test_secrets_go_out_encrypted(): void
    {
        $answer = $this->post('/accounts/export-secrets', self::asked())->assertOk()->baseResponse;
        self::assertInstanceOf(\Symfony\Component\HttpFoundation\BinaryFileResponse::class, $answer);
        $zip = new \ZipArchive;
        self::assertTrue($zip->open($answer->getFile()->getPathname()));
        self::assertFalse(@$zip->getFromName('accounts.csv'), 'without the passphrase');
        $zip->setPassword(self::PASSPHRASE);
        self::assertStringContainsString(StandinHost::PASSWORD, (string) $zip->getFromName('accounts.csv'));
        self::assertSame(1, RecordEntry::where('action', RecordKind::ListExported)->count());
    }
}
