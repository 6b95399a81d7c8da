<?php

declare(strict_types=1);

namespace Cellarium\Standin\Jobs;

use Cellarium\Standin\World\HostedAccount;

/** Small made-up databases of an account: a JSON file each, beside the homes, where no FTP login comes. */
final readonly class Databases
{
    private string $directory;

    public function __construct(HostedAccount $account)
    {
        $this->directory = dirname($account->home, 2).'/databases/'.basename($account->home);
    }

    /** @return list<array{name: string, site: string}> */
    public function all(): array
    {
        $all = [];
        foreach (glob("$this->directory/*.json") ?: [] as $file) {
            $site = $this->read(basename($file, '.json'))['site'] ?? '';
            $all[] = ['name' => basename($file, '.json'), 'site' => is_string($site) ? $site : ''];
        }

        return $all;
    }

    /** Statements that make it anew; null where there is none of that name. */
    public function dump(string $name): ?string
    {
        $database = preg_match('/\A[a-z0-9_]{1,40}\z/', $name) === 1 ? $this->read($name) : [];
        $tables = $database['tables'] ?? null;
        if (! is_array($tables)) {
            return null;
        }
        $sql = "-- $name\n";
        foreach ($tables as $table => $rows) {
            foreach (is_array($rows) ? $rows : [] as $row) {
                $values = array_map(
                    static fn (mixed $value): string => "'".addslashes(is_scalar($value) ? (string) $value : '')."'",
                    is_array($row) ? $row : [],
                );
                $sql .= "INSERT INTO `$table` VALUES (".implode(', ', $values).");\n";
            }
        }

        return "$sql-- end\n";
    }

    /**
     * All of the statements or none.
     *
     * @return string|null what is wrong with them
     */
    public function restore(string $name, string $sql): ?string
    {
        $tables = [];
        foreach (explode("\n", rtrim($sql)) as $line) {
            if ($line === '' || str_starts_with($line, '--')) {
                continue;
            }
            if (preg_match('/\AINSERT INTO `([^`]+)` VALUES \((.*)\);\z/', $line, $match) !== 1) {
                return 'The statements are not understood.';
            }
            preg_match_all("/'((?:[^'\\\\]|\\\\.)*)'/", $match[2], $values);
            $tables[$match[1]][] = array_map(stripslashes(...), $values[1]);
        }
        $database = ['tables' => $tables] + $this->read($name);
        $file = "$this->directory/$name.json";

        return file_put_contents($file, json_encode($database, JSON_THROW_ON_ERROR)) === false
            ? 'The database could not be written.'
            : null;
    }

    /** @return array<mixed> */
    private function read(string $name): array
    {
        $text = @file_get_contents("$this->directory/$name.json");
        $database = $text === false ? null : json_decode($text, true);

        return is_array($database) ? $database : [];
    }
}
