<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\RecordEntry;
use App\Models\RecordKind;
use App\Record\Record;
use App\Record\RecordSeal;
use Cellarium\Core\People\Role;
use Illuminate\Support\Facades\DB;

/** The record names who, in which role, from where; what is changed, left out or put in between shows. */
final class RecordTest extends AppTestCase
{
    protected const HOST_IS_ONLY_READ = true;

    protected function setUp(): void
    {
        parent::setUp();
        foreach (range(1, 5) as $number) {
            Record::write(
                RecordKind::SiteChanged,
                "Change $number, größer",
                $this->site,
                ['share' => 0.1, 'b' => [2, 'a']],
            );
        }
        self::assertSame(['lines' => 5, 'faults' => []], RecordSeal::verify());
    }

    /** As whoever has the database itself, beside the rules that keep the record. */
    private function tamper(string $statement): void
    {
        foreach (['update', 'delete'] as $event) {
            DB::unprepared("DROP TRIGGER IF EXISTS record_keeps_$event");
        }
        DB::unprepared($statement);
        foreach (['update', 'delete'] as $event) {
            DB::unprepared(
                "CREATE TRIGGER record_keeps_$event BEFORE $event ON record_entries FOR EACH ROW "
                ."SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'The record is append-only.'",
            );
        }
    }

    public function test_it_names_the_person_the_role_and_the_address(): void
    {
        $this->actingAs($this->person)
            ->withServerVariables(['REMOTE_ADDR' => '192.0.2.44'])
            ->post(
                "/clients/{$this->account->client_id}",
                ['name' => 'Pilgrim Stones', 'colour' => '#6f5a44', 'group' => ''],
            );

        $entry = RecordEntry::latest('id')->firstOrFail();
        self::assertSame(
            [RecordKind::ClientChanged, $this->person->id, Role::Maintainer, '192.0.2.44'],
            [$entry->action, $entry->person_id, $entry->role, $entry->address],
        );
        $this->get('/record')->assertSee('maintainer, 192.0.2.44');
    }

    public function test_the_address_goes_along_with_what_a_worker_does(): void
    {
        $this->actingAs($this->person)
            ->withServerVariables(['REMOTE_ADDR' => '192.0.2.45'])
            ->post("/sites/{$this->site->id}/backups");

        $entry = RecordEntry::where('action', RecordKind::BackupTaken)->firstOrFail();
        self::assertSame([$this->person->id, '192.0.2.45'], [$entry->person_id, $entry->address]);
    }

    public function test_a_line_that_was_changed_shows_whatever_was_changed_in_it(): void
    {
        foreach (
            [
                'sentence = "Nothing"',
                'person_id = 1',
                'role = "helper"',
                'address = "192.0.2.1"',
                'at = "2026-01-01 00:00:00"',
                'facts = NULL',
                'client_id = NULL',
                'action = "cleaned"',
            ] as $change
        ) {
            DB::beginTransaction();
            $before = DB::table('record_entries')->where('number', 3)->first();
            DB::rollBack();
            $this->tamper("UPDATE record_entries SET $change WHERE number = 3");
            $faults = RecordSeal::verify()['faults'];
            self::assertCount(1, $faults, $change);
            self::assertStringContainsString('Line 3 of', $faults[0]);
            $this->tamper('DELETE FROM record_entries WHERE number = 3');
            DB::table('record_entries')->insert((array) $before);
            self::assertSame([], RecordSeal::verify()['faults']);
        }
    }

    public function test_lines_that_are_gone_show_in_the_middle_and_at_the_end(): void
    {
        $this->tamper('DELETE FROM record_entries WHERE number IN (2, 3)');
        self::assertStringContainsString('Lines 2 to 3 are missing.', implode(' ', RecordSeal::verify()['faults']));
        $this->tamper('DELETE FROM record_entries WHERE number = 5');
        self::assertStringContainsString(
            'should end with line 5, and ends with 4',
            implode(' ', RecordSeal::verify()['faults']),
        );
    }

    public function test_a_line_put_in_between_shows_though_it_is_numbered_well(): void
    {
        $this->tamper(
            'UPDATE record_entries SET number = number + 1 WHERE number >= 4 ORDER BY number DESC; '
            ."INSERT INTO record_entries (number, seal, at, action, sentence) VALUES (4, REPEAT('0', 64), NOW(), "
            ."'site_changed', 'made up'); UPDATE record_ends SET number = 6",
        );

        self::assertNotSame([], RecordSeal::verify()['faults']);
    }

    public function test_without_the_applications_key_nobody_seals(): void
    {
        config(['app.key' => 'base64:'.base64_encode(random_bytes(32))]);
        self::assertCount(5, array_filter(
            RecordSeal::verify()['faults'],
            static fn (string $fault): bool => str_contains($fault, 'is not as it was written'),
        ));
    }

    public function test_after_the_key_was_changed_lines_sealed_with_the_one_before_hold(): void
    {
        config(['app.previous_keys' => [config('app.key')], 'app.key' => 'base64:'.base64_encode(random_bytes(32))]);
        Record::write(RecordKind::SiteChanged, 'Under the new key', $this->site);

        self::assertSame(['lines' => 6, 'faults' => []], RecordSeal::verify());
    }

    public function test_the_console_says_whether_it_holds(): void
    {
        self::assertSame([0, ['ok' => true, 'lines' => 5, 'faults' => []]], $this->artisanJson('record', '--verify'));
        $this->tamper("UPDATE record_entries SET sentence = 'x' WHERE number = 1");

        [$status, $said] = $this->artisanJson('record', '--verify');

        self::assertSame([1, false], [$status, $said['ok']]);
        self::assertSame(1, $this->artisanJson('record')[0]);
    }

    public function test_lines_written_at_once_by_several_processes_stand_in_one_chain(): void
    {
        $writers = [];
        for ($writer = 0; $writer < 4; $writer++) {
            $process = proc_open(
                [PHP_BINARY, '-r', 'require "vendor/autoload.php"; (require "bootstrap/app.php")->make('
                    .'Illuminate\Contracts\Console\Kernel::class)->bootstrap(); for ($line = 0; $line < 25; $line++) '
                    .'{ App\Record\Record::write(App\Models\RecordKind::Cleaned, "From $line"); }'],
                [1 => ['file', '/dev/null', 'w'], 2 => ['pipe', 'w']],
                $pipes,
                dirname(__DIR__, 2),
                $this->settings() + getenv(),
            );
            $writers[] = [$process, $pipes[2]];
        }
        foreach ($writers as [$process, $errors]) {
            self::assertSame('', stream_get_contents($errors));
            self::assertSame(0, proc_close($process));
        }

        self::assertSame(['lines' => 105, 'faults' => []], RecordSeal::verify());
    }
}
