<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Backup;
use App\Models\BackupReason;
use App\Models\BackupState;
use App\Models\Client;
use App\Models\ClientRequest;
use App\Models\FtpUser;
use App\Models\Person;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use App\Models\Site;
use App\Record\Record;
use App\Today\ConcernKind;
use App\Today\Concerns;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Manifest\Manifest;
use Tests\Support\Builder\AccountBuilder;
use Tests\Support\Builder\PersonBuilder;
use Tests\Support\TestStore;

/** Somebody of a client sees what is that client's; nothing else exists. */
final class ClientsPersonTest extends AppTestCase
{
    /** What stands on no page of theirs: another client, and where only the agency goes. */
    private const NOT_THEIRS = ['kelpie', 'Kelpie', 'secret-host', '"/accounts', '"/deployments', '"/packages'];

    private Person $clients;

    private Site $anothers;

    protected function setUp(): void
    {
        parent::setUp();
        $this->clients = PersonBuilder::aPersonOf($this->account->client)->build();
        $this->anothers = AccountBuilder::anAccount()
            ->of('Kelpie Boatyard')
            ->at('secret-host.example')
            ->withSite('kelpie.example', '/www')
            ->build()
            ->sites
            ->firstOrFail();
        Backup::create([
            'site_id' => $this->anothers->id,
            'reason' => BackupReason::OnDemand,
            'state' => BackupState::Verified,
            'verified_at' => now(),
        ]);
        Record::write(RecordKind::SiteChanged, 'kelpie.example changed', $this->anothers);
    }

    public function test_they_see_their_sites_proofs_backups_and_record_and_nothing_of_others_anywhere(): void
    {
        $this->deployed();
        $this->actingAs($this->clients);
        $pages = [
            '/' => 'Your sites',
            "/sites/{$this->site->id}" => 'What is proven',
            '/backups' => 'copy read back',
            "/backups?site={$this->site->id}" => 'copy read back',
            '/record' => 'live and proven',
            '/record?q=e' => 'live and proven',
            '/find?q=e' => 'site.example',
            '/find?q=' => 'site.example',
            '/me' => 'Pilgrim Stones Hostel',
        ];
        foreach ($pages as $address => $words) {
            $page = (string) $this->get($address)->assertOk()->assertSee($words)->getContent();
            foreach (self::NOT_THEIRS as $not) {
                self::assertStringNotContainsString($not, $page, $address);
            }
        }
    }

    public function test_lists_counts_and_relations_hold_what_is_theirs(): void
    {
        $this->deployed();
        $this->actingAs($this->clients);

        self::assertSame(['site.example'], Site::pluck('domain')->all());
        self::assertSame(1, Site::count());
        self::assertSame(1, Client::count());
        self::assertNull(Site::find($this->anothers->id));
        self::assertSame([$this->site->id], Backup::distinct()->pluck('site_id')->all());
        self::assertNull(RecordEntry::where('sentence', 'like', '%kelpie%')->first());
        self::assertSame(0, RecordEntry::where('client_id', $this->anothers->account->client_id ?? 0)->count());
    }

    public function test_a_site_of_theirs_in_the_account_of_another_is_theirs_and_the_account_is_not(): void
    {
        Site::whereKey($this->anothers->id)->update(['client_id' => $this->clients->client_id]);
        FtpUser::create([
            'account_id' => $this->anothers->account_id,
            'login' => 'boats@kelpie.example',
            'directory' => '/www',
            'state' => 'open',
            'ends' => 'never',
            'ends_reason' => 'a test',
            'purpose' => 'Kelpie pictures',
        ]);
        $this->actingAs($this->clients);

        $page = $this->get("/sites/{$this->anothers->id}")
            ->assertOk()
            ->assertSee('kelpie.example')
            ->assertSee('boats@kelpie.example')
            ->assertSee('Pilgrim Stones Hostel');
        foreach (['Kelpie', 'secret-host', 'space of the account'] as $not) {
            self::assertStringNotContainsString($not, (string) $page->getContent());
        }
        $this->get('/')->assertOk()->assertSee('kelpie.example')->assertDontSee('Kelpie Boatyard');
        $this->get('/backups')->assertOk()->assertSee('kelpie.example')->assertDontSee('Kelpie Boatyard');
    }

    public function test_a_site_in_their_account_that_is_anothers_does_not_exist(): void
    {
        $other = Client::create(['name' => 'Thrift & Campion', 'colour' => '#112233']);
        $hidden = $this->account->sites()->create([
            'domain' => 'thrift.example',
            'base_url' => 'http://thrift.example',
            'document_root' => '/www/thrift',
            'start_pages' => ['index.html'],
            'kept' => [],
            'client_id' => $other->id,
        ]);
        Record::write(RecordKind::SiteChanged, 'thrift.example changed', $hidden);
        $this->actingAs($this->clients);

        $this->get("/sites/$hidden->id")->assertNotFound();
        foreach (['/', '/find?q=thrift', '/record', "/sites/{$this->site->id}"] as $address) {
            $this->get($address)->assertOk()->assertDontSee('thrift.example');
        }
    }

    public function test_what_was_removed_is_gone_for_them(): void
    {
        $this->site->delete();
        $this->actingAs($this->clients);

        $this->get("/sites/{$this->site->id}")->assertNotFound();
        $this->get('/')->assertOk()->assertSee('looks after no site of yours here yet');
    }

    public function test_when_their_client_is_removed_they_are_kept_out_until_that_is_undone(): void
    {
        $this->actingAs($this->clients)->get('/')->assertOk();
        $this->account->client->delete();
        $this->actingAs($this->clients)->get('/')->assertRedirect('/sign-in');
        $signIn = ['email' => $this->clients->email, 'password' => PersonBuilder::PASSWORD];
        $this->post('/sign-in', $signIn)->assertSessionHasErrors('email');

        $this->account->client->restore();
        $this->post('/sign-in', $signIn)->assertRedirect('/');
    }

    public function test_a_number_in_a_question_that_is_anothers_answers_like_none(): void
    {
        $this->actingAs($this->clients);
        foreach (["/backups?site={$this->anothers->id}" => '/backups?site=987654'] as $one => $none) {
            $a = $this->get($one)->assertNotFound();
            $b = $this->get($none)->assertNotFound();
            self::assertSame((string) $b->getContent(), (string) $a->getContent());
        }
        $ask = ['kind' => 'change', 'words' => 'Please.'];
        $this->post('/requests', ['site' => (string) $this->anothers->id] + $ask)->assertNotFound();
        self::assertSame(0, ClientRequest::count());
    }

    public function test_somebody_of_no_client_sees_nothing(): void
    {
        $this->clients->forceFill(['client_id' => null])->save();
        $this->actingAs($this->clients);

        $this->get('/')->assertOk()->assertDontSee('site.example');
        self::assertSame([0, 0, 0], [Site::count(), Client::count(), RecordEntry::count()]);
    }

    public function test_what_they_ask_is_a_concern_until_it_is_answered_and_the_answer_stands_on_their_page(): void
    {
        $this->actingAs($this->clients)
            ->post('/requests', [
                'kind' => 'ftp_user',
                'site' => (string) $this->site->id,
                'words' => 'For our photographer, <b>until</b> Friday.',
            ])
            ->assertRedirect('/#asked');
        $this->get('/')->assertSee('1 waits for an answer')->assertSee('For our photographer, <b>until</b>');
        $asked = ClientRequest::firstOrFail();

        $this->actingAs($helper = PersonBuilder::aHelper()->build());
        $this->get('/')->assertSee('An FTP user is asked for')->assertSee('Maud Ostler');
        $this->get("/requests/$asked->id")->assertSee('New FTP user')->assertSee('For our photographer');
        $this->post("/requests/$asked->id/answer", ['answer' => 'It is open until Friday.'])
            ->assertRedirect('/requests');
        $this->followingRedirects()
            ->post("/requests/$asked->id/answer", ['answer' => 'No.'])
            ->assertSee('Somebody has answered it already');

        self::assertNotContains(ConcernKind::Asked, array_column(Concerns::compute()->all, 'kind'));
        $this->actingAs($this->clients)->get('/')->assertSee('It is open until Friday.')->assertDontSee('>No.<');
        $told = RecordEntry::where('action', RecordKind::Answered)->firstOrFail();
        self::assertSame([$helper->id, $this->site->id], [$told->person_id, $told->site_id]);
    }

    public function test_a_backup_is_downloaded_whole_by_whom_it_was_allowed(): void
    {
        file_put_contents($this->root().'/größe.txt', 'umlaut');
        self::assertSame(0, $this->artisanJson('backup', 'site.example')[0]);
        $this->actingAs($this->clients);
        $backup = Backup::where('site_id', $this->site->id)->latest('id')->firstOrFail();
        $this->get("/backups/$backup->id/zip")->assertNotFound();
        $this->get('/backups')->assertDontSee('Download as zip');

        $this->clients->update(['may_fetch_backups' => true]);
        $this->actingAs($this->clients->refresh());
        $this->get('/backups')->assertSee('Download as zip');
        $answer = $this->get("/backups/$backup->id/zip")->assertOk();

        $file = "$this->var/downloaded.zip";
        file_put_contents($file, $answer->streamedContent());
        self::assertSame((int) $answer->headers->get('Content-Length'), filesize($file), 'its length is told before');
        $zip = new \ZipArchive;
        self::assertTrue($zip->open($file, \ZipArchive::CHECKCONS));
        self::assertSame('umlaut', $zip->getFromName('größe.txt'));
        self::assertSame($backup->files + 1, count(array_filter(
            array_map(static fn (int $at): string => (string) $zip->getNameIndex($at), range(0, $zip->numFiles - 1)),
            static fn (string $name): bool => ! str_ends_with($name, '/'),
        )), 'every file, and the manifest');
        self::assertEquals(
            app(BackupShelf::class)->manifest((string) $backup->name),
            Manifest::fromText((string) $zip->getFromName('backup-manifest.jsonl')),
        );
        self::assertSame(
            $this->clients->id,
            RecordEntry::where('action', RecordKind::BackupDownloaded)->firstOrFail()->person_id,
        );
    }

    public function test_a_damaged_backup_is_not_downloaded(): void
    {
        file_put_contents($this->root().'/a.txt', 'the first of all');
        file_put_contents($this->root().'/z.txt', 'the last of all');
        $this->artisanJson('backup', 'site.example');
        $backup = Backup::where('site_id', $this->site->id)->latest('id')->firstOrFail();
        TestStore::flipABit("$this->var/contents", hash('sha256', 'the last of all'));

        $this->actingAs($this->person)
            ->get("/backups/$backup->id/zip")
            ->assertStatus(422)
            ->assertSee('stored copy of z.txt')
            ->assertSee('nothing was downloaded');

        self::assertSame(0, RecordEntry::where('action', RecordKind::BackupDownloaded)->count());
    }
}
