<?php

declare(strict_types=1);

namespace Tests\App;

use App\Failure\Problem;
use App\Storage\Schema;
use Illuminate\Foundation\Testing\RefreshDatabaseState;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema as Tables;

/** Each change of the schema is a migration of its own, and what a database looks like behind each is written down. */
final class SchemaTest extends AppTestCase
{
    protected const HOST_IS_ONLY_READ = true;

    protected function tearDown(): void
    {
        RefreshDatabaseState::$migrated = false; // The next test finds a database of this version.
        Tables::dropAllTables();
        parent::tearDown();
    }

    public function test_behind_each_migration_the_schema_is_the_one_written_down(): void
    {
        Tables::dropAllTables();
        self::assertSame('new', Schema::state());
        $seen = [];
        foreach (glob(base_path('database/migrations/*.php')) ?: [] as $file) {
            Artisan::call('migrate', ['--force' => true, '--path' => $file, '--realpath' => true]);
            $seen[basename($file, '.php')] = Schema::look();
        }
        if (getenv('WRITE_DOCUMENTS') !== false) {
            file_put_contents(
                base_path(Schema::FILE),
                json_encode($seen, JSON_PRETTY_PRINT | JSON_THROW_ON_ERROR)."\n",
            );
        }
        self::assertSame(
            $seen,
            Schema::own(),
            'A migration was changed after it was written down, or is not written down yet: '
                .'WRITE_DOCUMENTS=1 ./test php --filter SchemaTest writes a new one; an old one must stay.',
        );
        self::assertSame('current', Schema::state());
    }

    public function test_an_earlier_schema_is_brought_up_and_none_of_before_the_freeze_or_of_later(): void
    {
        $files = glob(base_path('database/migrations/*.php')) ?: [];
        Tables::dropAllTables();
        Artisan::call('migrate', ['--force' => true, '--path' => $files[0], '--realpath' => true]);
        self::assertSame('behind', Schema::state());
        Artisan::call('migrate', ['--force' => true]);
        self::assertSame('current', Schema::state());

        DB::table('migrations')->insert(['migration' => '2031_01_01_000000_of_later', 'batch' => 9]);
        self::assertStringContainsString('a later version', $this->refused());
        DB::table('migrations')->where('batch', 9)->delete();

        Tables::drop('site_stays');
        self::assertStringContainsString('site_stays is missing', $this->refused());
        self::assertStringContainsString('before the first release', $this->refused());
    }

    private function refused(): string
    {
        try {
            Schema::state();
        } catch (Problem $problem) {
            return $problem->getMessage();
        }
        self::fail('It was taken for one that can be brought up.');
    }
}
