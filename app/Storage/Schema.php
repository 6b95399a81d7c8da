<?php

declare(strict_types=1);

namespace App\Storage;

use App\Failure\Problem;
use Illuminate\Support\Facades\DB;

/**
 * The schema of the database, and whether this version can bring it up to its own.
 *
 * Since the first release each change is a migration of its own, and database/schema.json holds what the schema looks
 * like behind each of them. One that looks like none of these is from before that, or was changed by hand.
 */
final class Schema
{
    public const FILE = 'database/schema.json';

    private const MOST_NAMED = 5;

    /**
     * @return 'new'|'current'|'behind' an empty database, the schema of this version, or an earlier one
     *
     * @throws Problem for any other, with what to do; nothing is changed
     */
    public static function state(): string
    {
        $applied = self::applied();
        if ($applied === null) {
            return 'new';
        }
        $own = self::own();
        $later = array_diff($applied, array_keys($own));
        $later === [] || throw new Problem(
            'The database was brought up by a later version of Cellarium ('.implode(', ', $later).'). Nothing was '
                .'changed. '
                .'Start that version again; this one cannot read what it may have written.',
        );
        $last = $applied === [] ? '' : max($applied);
        $expected = $own[$last] ?? [];
        $found = self::look();
        $differs = self::differences($expected, $found);
        $differs === [] || throw new Problem(
            'The database was made by a version from before the first release, or was changed by hand, and cannot be '
                .'brought up: '.implode(', ', array_slice($differs, 0, self::MOST_NAMED))
                .(count($differs) > self::MOST_NAMED ? ' and more' : '').'. Nothing was changed. Start the version '
                .'that made '
                .'it once more, export the accounts there (Accounts, Export), then move '.config('cellarium.var')
                .' away and import the list into a new one.',
        );

        return $last === array_key_last($own) ? 'current' : 'behind';
    }

    /** @return array<string, array<string, string>> what a schema looks like behind each migration, see look() */
    public static function own(): array
    {
        return json_decode((string) file_get_contents(base_path(self::FILE)), true, flags: JSON_THROW_ON_ERROR);
    }

    /** @return array<string, string> by table, what tells it from another: columns, keys and triggers, hashed */
    public static function look(): array
    {
        $facts = [];
        $add = static function (string $query) use (&$facts): void {
            foreach (DB::select($query, [DB::getDatabaseName()]) as $row) {
                $values = array_map(static fn (mixed $value): string => (string) $value, array_values((array) $row));
                $facts[$values[0]][] = implode(' ', array_slice($values, 1));
            }
        };
        $add('SELECT table_name, column_name, column_type, is_nullable, extra FROM information_schema.columns '
            .'WHERE table_schema = ? ORDER BY table_name, column_name');
        $add("SELECT table_name, 'key', index_name, non_unique, GROUP_CONCAT(column_name ORDER BY seq_in_index) "
            .'FROM information_schema.statistics WHERE table_schema = ? GROUP BY table_name, index_name, non_unique '
            .'ORDER BY table_name, index_name');
        $add("SELECT event_object_table, 'trigger', trigger_name, event_manipulation FROM information_schema.triggers "
            .'WHERE trigger_schema = ? ORDER BY event_object_table, trigger_name');
        ksort($facts);

        return array_map(
            static fn (array $lines): string => substr(hash('sha256', implode("\n", $lines)), 0, 16),
            $facts,
        );
    }

    /** @return list<string>|null names of migrations; null for a database without a table */
    private static function applied(): ?array
    {
        $tables = DB::select(
            'SELECT table_name AS name FROM information_schema.tables WHERE table_schema = ?',
            [DB::getDatabaseName()],
        );
        if ($tables === []) {
            return null;
        }

        return in_array('migrations', array_column($tables, 'name'), true)
            ? DB::table('migrations')->orderBy('migration')->pluck('migration')->all()
            : [];
    }

    /**
     * @param  array<string, string>  $expected
     * @param  array<string, string>  $found
     * @return list<string> in words, a table each
     */
    private static function differences(array $expected, array $found): array
    {
        $words = [];
        foreach ($expected + $found as $table => $ignored) {
            $word = match (true) {
                ! isset($found[$table]) => "$table is missing",
                ! isset($expected[$table]) => "$table is not known",
                $found[$table] !== $expected[$table] => "$table is another",
                default => null,
            };
            $word === null || $words[] = $word;
        }

        return $words;
    }
}
