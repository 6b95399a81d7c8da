<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Backup;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\WorkInProgress;
use Tests\Support\StandinHost;

/** What a site keeps in a database is written out at the host and kept with the files of the same moment. */
final class DatabasesTest extends AppTestCase
{
    private function database(string $name, string $site): void
    {
        $directory = "{$this->host->directory}/databases/".StandinHost::LOGIN;
        is_dir($directory) || mkdir($directory, recursive: true);
        file_put_contents("$directory/$name.json", (string) json_encode([
            'site' => $site,
            'tables' => ['pages' => [['1', "The ferry's hours"], ['2', 'Tides']]],
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
}
