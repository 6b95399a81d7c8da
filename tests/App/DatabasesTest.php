<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Backup;
use App\Models\BackupReason;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use App\Storage\RunIds;
use Cellarium\Core\Path\TemporaryName;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\WorkInProgress;
use Illuminate\Http\UploadedFile;
use Tests\Support\StandinHost;

/** What a site keeps in a database is written out at the host and kept with the files of the same moment. */
final class DatabasesTest extends AppTestCase
{
    private function database(string $name, string $site, string $second = 'Tides'): void
    {
        $directory = "{$this->host->directory}/databases/".StandinHost::LOGIN;
        is_dir($directory) || mkdir($directory, recursive: true);
        file_put_contents("$directory/$name.json", (string) json_encode([
            'site' => $site,
            'tables' => ['pages' => [['1', "The ferry's hours"], ['2', $second]]],
        ]));
    }

    private function backup(): Backup
    {
        [$status, $said] = $this->artisanJson('backup', 'site.example');
        self::assertSame(0, $status);

        return Backup::findOrFail($said['id']);
    }

    public function test_it_is_stored_beside_the_files_and_downloaded_with_them(): void
    {
        $this->database('shop', 'site.example');
        $this->database('forum', 'other.example');
        $before = self::contents("{$this->host->home}/www");
        $backup = $this->backup();
        self::assertSame(['shop'], array_column($backup->databases ?? [], 'name'));
        self::assertSame($before, self::contents("{$this->host->home}/www"), 'nothing of it stays at the host');
        $sql = app(ContentStore::class)->text($backup->databases[0]['sha256']);
        self::assertStringContainsString("INSERT INTO `pages` VALUES ('1', 'The ferry\\'s hours');", $sql);
        self::assertStringEndsWith("-- end\n", $sql);

        app(WorkInProgress::class)->end();
        $this->travel(3)->days();
        $this->artisanJson('clean');
        $this->travelBack();
        $file = "$this->var/whole.zip";
        $this->actingAs($this->person);
        file_put_contents($file, $this->get("/backups/$backup->id/zip")->assertOk()->streamedContent());
        $zip = new \ZipArchive;
        self::assertTrue($zip->open($file, \ZipArchive::CHECKCONS));
        self::assertSame($sql, $zip->getFromName('database-shop.sql'));
        $this->get("/backups?site={$this->site->id}")->assertSee('database shop, ');
    }

    public function test_what_a_killed_worker_left_beside_the_site_goes_with_a_later_backup(): void
    {
        $this->database('shop', 'site.example');
        $run = RunIds::ofBackup($this->backup()->id);
        $left = static fn (string $run, int $number): string => '/www/'.TemporaryName::forRun($run, $number);
        $files = [$left($run, 1), $left("{$run}r", 1), $left("{$run}rn", 1)];
        $others = [$left('backup1ffff', 1), $left('1abcd', 1)];
        foreach ([...$files, ...$others] as $file) {
            file_put_contents($this->host->home.$file, 'a whole database');
        }
        $there = fn (array $of): array => array_values(
            array_filter($of, fn (string $file): bool => is_file($this->host->home.$file)),
        );
        $this->backup();
        self::assertSame($files, $there($files), 'it may be at work still');
        $this->travel(2)->days();
        $this->backup();
        self::assertSame([], $there($files));
        self::assertSame($others, $there($others), 'those are of somebody else');
    }

    public function test_where_that_is_not_possible_it_is_said_and_the_files_are_backed_up_all_the_same(): void
    {
        self::assertNull($this->backup()->databases_said, 'nobody expects one of a site without a system');
        $this->site->update(['installed' => [['type' => 'quaylight', 'name' => 'Quaylight', 'version' => '2.4']]]);
        self::assertStringContainsString('does not write databases out', (string) $this->backup()->databases_said);
        $this->database('shop', 'site.example');
        $this->host->faults(['jobs_fail_at' => 0]);
        $backup = $this->backup();
        self::assertNull($backup->databases);
        self::assertStringContainsString('could not be written out', (string) $backup->databases_said);
        $this->actingAs($this->person)
            ->get("/backups?site={$this->site->id}")
            ->assertSee('its database is not in it');
        $this->host->faults([]);
        self::assertSame(['shop'], array_column($this->backup()->databases ?? [], 'name'));
    }

    public function test_it_is_part_of_the_way_back_of_deployments_and_never_of_changes_by_hand(): void
    {
        $this->database('shop', 'site.example');
        $package = $this->package();
        $this->actingAs($this->person)
            ->post('/deployments', ['site' => $this->site->id, 'package' => $package->id])
            ->assertRedirect();
        $run = Deployment::latest('id')->firstOrFail();
        $this->get("/deployments/$run->id")->assertSee('The database shop is written out with it');
        $this->post("/deployments/$run->id/start");
        self::assertSame(DeploymentState::Proven, $run->refresh()->state, (string) $run->trouble);
        self::assertSame(['shop'], array_column($run->backup->databases ?? [], 'name'));

        $this->post("/sites/{$this->site->id}/file-uploads", [
            'at' => $this->site->document_root,
            'brought' => [UploadedFile::fake()->createWithContent('new.html', '<h1>New</h1>')],
        ]);
        $upload = Deployment::latest('id')->firstOrFail();
        self::assertNull($upload->databases_ahead);
        $this->post("/deployments/$upload->id/start");
        self::assertSame(DeploymentState::Proven, $upload->refresh()->state, (string) $upload->trouble);
        self::assertNull($upload->backup->databases);

        // Undoing puts files back, and leaves what was ordered since.
        $this->database('shop', 'site.example', 'Ordered since');
        $this->post("/deployments/$run->id/undo")->assertRedirect();
        $undo = Deployment::latest('id')->firstOrFail();
        $this->get("/deployments/$undo->id")->assertSee('Undoing brings no database back');
        $this->post("/deployments/$undo->id/answers", ['scope' => '', 'choice' => 'ours']);
        $this->post("/deployments/$undo->id/start");
        self::assertSame(DeploymentState::Proven, $undo->refresh()->state, (string) $undo->trouble);
        self::assertStringContainsString('Ordered since', $this->held('shop'));
        self::assertSame(['shop'], array_column($undo->backup->databases ?? [], 'name'));
    }

    public function test_it_is_restored_on_its_own_and_what_is_there_is_written_out_first(): void
    {
        $this->database('shop', 'site.example');
        $backup = $this->backup();
        $this->database('shop', 'site.example', 'Ordered since');
        $this->actingAs($this->person)->get("/backups/$backup->id")->assertSee('Restore this database');
        $restore = fn () => $this->post("/backups/$backup->id/restore-database", ['database' => 'shop']);

        $this->host->faults(['jobs_fail_at' => 0]);
        $restore()->assertSessionHas('trouble');
        self::assertStringContainsString('Ordered since', $this->held('shop'), 'not kept, so not touched');
        $this->host->faults([]);
        $before = self::contents("{$this->host->home}/www");
        $restore()->assertSessionHas('done');
        self::assertStringContainsString("The ferry's hours", $this->held('shop'));
        self::assertStringNotContainsString('Ordered since', $this->held('shop'));
        self::assertSame($before, self::contents("{$this->host->home}/www"), 'nothing of it stays at the host');
        $said = RecordEntry::where('action', RecordKind::DatabaseRestored)->firstOrFail()->sentence;
        self::assertStringContainsString('proven by writing it out again', $said);
        $kept = Backup::where('reason', BackupReason::BeforeRestoreDatabase)->latest('id')->firstOrFail();
        self::assertStringContainsString(
            'Ordered since',
            app(ContentStore::class)->text($kept->databases[0]['sha256']),
        );
        $this->post("/backups/$backup->id/restore-database", ['database' => 'forum'])->assertSessionHas('trouble');
    }

    private function held(string $name): string
    {
        return (string) file_get_contents("{$this->host->directory}/databases/".StandinHost::LOGIN."/$name.json");
    }
}
