<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\RecordEntry;
use App\Models\Sheet;
use App\Models\SheetLink;
use Cellarium\Core\Sheet\SheetChange;
use Cellarium\Core\Sheet\SheetKind;
use Illuminate\Testing\TestResponse;
use Tests\Support\Builder\AccountBuilder;
use Tests\Support\Builder\PersonBuilder;

/** What a client is given to hold: true, signed, and opened by whom it was given to, for as long as was chosen. */
final class SheetsTest extends AppTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        config(['cellarium.agency.name' => 'Marram & Tide']);
    }

    private function sheetOf(Deployment $deployment): Sheet
    {
        $this->actingAs($this->person)->post("/deployments/$deployment->id/sheet")->assertRedirect();

        return Sheet::latest('id')->firstOrFail();
    }

    /** @return array{SheetLink, string} the link and the code at its end */
    private function linkTo(Sheet $sheet, int $days = 7): array
    {
        $page = $this->actingAs($this->person)->post("/sheets/$sheet->id/links", ['days' => (string) $days]);
        preg_match('#id="link"[^>]*>([^<]+)<#', (string) $page->assertOk()->getContent(), $found);

        return [SheetLink::latest('id')->firstOrFail(), (string) parse_url($found[1], PHP_URL_FRAGMENT)];
    }

    /** By whom nobody knows. */
    private function opened(string $code): TestResponse
    {
        auth()->forgetUser();
        $this->flushSession();

        return $this->post('/client-sheet', ['code' => $code]);
    }

    public function test_a_sheet_of_a_deployment_says_what_changed_what_it_rests_on_and_who_had_access(): void
    {
        $user = $this->ftpUser('designer', '/www/site.example');
        $user->update(['purpose' => 'Pictures for the spring']);
        $this->ftpUser('elsewhere', '/www/other.example');
        $deployed = $this->deployed();
        $sheet = $this->sheetOf($deployed)->signed()->sheet;
        self::assertSame(['Marram & Tide', $this->account->client->name], [$sheet->agency, $sheet->client]);
        self::assertSame($deployed->id, $sheet->cover->deployment);
        $change = $sheet->changes[0];
        self::assertSame([SheetKind::Deployed, 'stones 1.0', true], [$change->kind, $change->what, $change->isGood]);
        self::assertSame($this->person->name, $change->by);
        self::assertSame($deployed->backup_id, $change->backup?->number);
        self::assertGreaterThan(0, $change->proof?->fetched);
        self::assertSame($change->proof->fetched, $change->proof->held);
        self::assertSame(count(self::SITE), $change->added);
        self::assertSame(0, $change->outage?->milliseconds);
        self::assertGreaterThan(0, $change->outage->asked);
        self::assertTrue($change->outage->isWhole);
        $logins = array_column($sheet->access, 'login');
        self::assertContains('designer@site.example', $logins);
        self::assertContains($this->account->login, $logins);
        self::assertNotContains('elsewhere@site.example', $logins);
    }

    public function test_a_period_tells_every_kind_of_change_and_of_no_other_client(): void
    {
        AccountBuilder::anAccount()->of('Kelpie Boatyard')->withSite('kelpie.example', '/www')->build();
        $this->artisanJson('backup', 'site.example');
        $this->deployed();
        file_put_contents($this->root().'/left.php', 'left here');
        $this->artisanJson('backup', 'site.example');
        [$status, $said] = $this->artisanJson(
            'sheet',
            $this->account->client->name,
            '--from='.now()->subDay()->format('Y-m-d'),
            '--until='.now()->format('Y-m-d'),
        );
        self::assertSame(0, $status);
        self::assertSame(['site.example'], array_column($said['sheet']['sites'], 'domain'));
        $kinds = array_column($said['sheet']['changes'], 'kind');
        self::assertContains('deployed', $kinds);
        self::assertContains('by_nobody_here', $kinds);
        $drift = array_column($said['sheet']['changes'], null, 'kind')['by_nobody_here'];
        self::assertStringContainsString('left.php', $drift['what']);
        self::assertFalse($drift['good']);
        self::assertSame(3, $said['sheet']['sites'][0]['backups']);
    }

    public function test_what_failed_is_told_as_that(): void
    {
        $deployed = $this->deployed();
        $deployed->update(['state' => DeploymentState::PutBack, 'outage' => null]);
        $change = $this->sheetOf($deployed)->signed()->sheet->changes[0];
        self::assertFalse($change->isGood);
        self::assertSame('failed, put back', $change->outcome);
        $this->get('/sheets/'.Sheet::latest('id')->first()?->id)
            ->assertSee('not measured')
            ->assertSee('1 not as meant');
    }

    public function test_a_link_opens_it_without_signing_in_as_often_as_wanted_and_each_time_is_written_down(): void
    {
        $sheet = $this->sheetOf($this->deployed());
        [$link, $code] = $this->linkTo($sheet);
        self::assertSame(43, strlen($code));
        self::assertStringNotContainsString($code, (string) json_encode($link->getAttributes()));
        $this->get('/client-sheet')->assertOk()->assertDontSee('stones');
        foreach ([1, 2] as $time) {
            $this->opened($code)->assertRedirect("/client-sheet/$link->id");
            $this->get("/client-sheet/$link->id")
                ->assertOk()
                ->assertSee('stones 1.0')
                ->assertHeader('Cache-Control', 'no-store, private')
                ->assertHeader('X-Robots-Tag', 'noindex');
            self::assertSame($time, $link->refresh()->opened);
        }
        self::assertSame(2, RecordEntry::where('action', 'sheet_opened')->count());
        $file = $this->get("/client-sheet/$link->id.json")->assertOk()->getContent();
        self::assertSame($sheet->signed()->toJson(), $file);
        $this->flushSession();
        $this->get("/client-sheet/$link->id")->assertNotFound()->assertDontSee('stones');
    }

    public function test_a_link_that_was_withdrawn_or_is_over_opens_nothing_even_where_it_was_open(): void
    {
        $sheet = $this->sheetOf($this->deployed());
        [$link, $code] = $this->linkTo($sheet);
        [$short, $other] = $this->linkTo($sheet, 1);
        $this->opened($code)->assertRedirect();
        $session = session()->all();
        $this->actingAs($this->person)->post("/sheet-links/$link->id/withdraw")->assertRedirect();
        auth()->forgetUser();
        $this->withSession($session)->get("/client-sheet/$link->id")->assertNotFound();
        $this->get("/client-sheet/$link->id.json")->assertNotFound();
        $this->opened($code)->assertNotFound()->assertDontSee('stones');
        $this->travel(2)->days();
        $this->opened($other)->assertNotFound();
        self::assertNull($short->refresh()->opened_at);
        self::assertSame(1, RecordEntry::where('action', 'sheet_withdrawn')->count());
    }

    public function test_the_clients_people_see_theirs_and_nobody_elses(): void
    {
        $sheet = $this->sheetOf($this->deployed());
        $other = AccountBuilder::anAccount()->of('Kelpie Boatyard')->build()->client;
        $own = PersonBuilder::aPersonOf($this->account->client)->build();
        $this->actingAs($own)->get("/sheets/$sheet->id/print")->assertOk()->assertSee('stones 1.0');
        $this->get("/sheets/$sheet->id.json")->assertOk();
        $this->get('/')->assertSee("/sheets/$sheet->id/print");
        $this->actingAs(PersonBuilder::aPersonOf($other)->build());
        $this->get("/sheets/$sheet->id/print")->assertNotFound();
        $this->get("/sheets/$sheet->id.json")->assertNotFound();
        [$link, $code] = $this->linkTo($sheet);
        $this->actingAs(PersonBuilder::aPersonOf($other)->build());
        $this->post('/client-sheet', ['code' => $code])->assertRedirect("/client-sheet/$link->id");
        $this->get("/client-sheet/$link->id")->assertOk()->assertSee('stones 1.0');
    }

    public function test_a_file_is_checked_and_one_that_was_altered_refused(): void
    {
        $sheet = $this->sheetOf($this->deployed());
        $file = "$this->var/sheet.json";
        file_put_contents($file, $sheet->signed()->toJson());
        [$status, $said] = $this->artisanJson('sheet', "--verify=$file");
        self::assertSame([0, true, $this->account->client->name], [$status, $said['ok'], $said['client']]);
        file_put_contents($file, str_replace('live and proven', 'live and lovely', $sheet->signed()->toJson()));
        [$status, $said] = $this->artisanJson('sheet', "--verify=$file");
        self::assertSame(1, $status);
        self::assertStringContainsString('altered', $said['error']);
        file_put_contents($file, $sheet->signed()->toJson());
        [$status, $said] = $this->artisanJson('sheet', "--verify=$file", '--key='.base64_encode(random_bytes(32)));
        self::assertSame(1, $status);
        self::assertStringContainsString('another key', $said['error']);
    }

    public function test_a_key_that_was_lost_is_not_made_anew_in_silence(): void
    {
        $deployed = $this->deployed();
        $this->sheetOf($deployed);
        unlink("$this->var/keys/sheets.json");
        $this->actingAs($this->person)
            ->post("/deployments/$deployed->id/sheet")
            ->assertSessionHas('trouble');
        self::assertFileDoesNotExist("$this->var/keys/sheets.json");
        self::assertSame(1, Sheet::count());
    }

    public function test_what_has_not_ended_and_what_is_no_time_get_no_sheet(): void
    {
        $deployed = $this->deployed();
        $deployed->update(['state' => DeploymentState::Running]);
        $this->actingAs($this->person)->post("/deployments/$deployed->id/sheet")->assertSessionHas('trouble');
        $this->post('/sheets', [
            'client' => (string) $this->account->client_id,
            'from' => now()->format('Y-m-d'),
            'until' => now()->subDays(3)->format('Y-m-d'),
        ])->assertSessionHas('trouble');
        self::assertSame(0, Sheet::count());
    }

    public function test_however_much_it_tells_what_is_left_out_of_the_page_is_counted(): void
    {
        $deployed = $this->deployed();
        $one = $deployed->only([
            'site_id',
            'kind',
            'package_id',
            'state',
            'policy',
            'counts',
            'way',
            'started_at',
            'ended_at',
        ]);
        for ($number = 0; $number < 40; $number++) {
            Deployment::create($one);
        }
        $this->actingAs($this->person)->post('/sheets', [
            'client' => (string) $this->account->client_id,
            'from' => now()->format('Y-m-d'),
            'until' => now()->format('Y-m-d'),
        ])->assertRedirect();
        $sheet = Sheet::firstOrFail();
        self::assertCount(41, array_filter(
            $sheet->signed()->sheet->changes,
            static fn (SheetChange $change): bool => $change->kind === SheetKind::Deployed,
        ));
        $this->get("/sheets/$sheet->id/print")->assertSee('And 32 more: 32 deployed.');
    }
}
