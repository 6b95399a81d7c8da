<?php

declare(strict_types=1);

namespace App\SelfBackup;

use App\Failure\Problem;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Storage\ScratchFile;

/** A user of the database and one database, for MariaDB's own programs. */
final readonly class DatabaseUser
{
    private function __construct(public string $name, private Secret $password, public string $database)
    {
    }

    /** Who reads all of the application's database, and nothing more. */
    public static function ofBackups(): self
    {
        [$name, $password] = self::named();

        return new self($name, $password, (string) self::settings()['database']);
    }

    /** The same where what was written out is brought back as a rehearsal. */
    public static function ofRehearsals(): self
    {
        [$name, $password] = self::named();

        return new self($name, $password, self::settings()['database'].'_rehearsal');
    }

    /** Who works with the application's database; it may lay tables only before it is narrowed. */
    public static function ofApplication(): self
    {
        $settings = self::settings();

        return new self(
            (string) $settings['username'],
            new Secret((string) $settings['password']),
            (string) $settings['database'],
        );
    }

    /**
     * @param  list<string>  $command  a program and its options
     * @param  array<int, list<string>>  $streams  as proc_open() takes them
     * @param  bool  $isOnDatabase  whether the name of the database is its last argument
     *
     * @throws Problem with what it said
     */
    public function run(array $command, array $streams, string $trouble, bool $isOnDatabase = true): void
    {
        $settings = self::settings();
        $said = ScratchFile::create();
        $process = proc_open(
            [
                $command[0],
                '--no-defaults',
                "--host={$settings['host']}",
                "--port={$settings['port']}",
                "--user=$this->name",
                ...array_slice($command, 1),
                ...$isOnDatabase ? [$this->database] : [],
            ],
            $streams + [['file', '/dev/null', 'r'], ['file', '/dev/null', 'w'], ['file', $said->path, 'w']],
            $pipes,
            null,
            // Not among the arguments, which everybody on the machine sees.
            ['MYSQL_PWD' => $this->password->reveal(), 'PATH' => (string) getenv('PATH')],
        );
        $process !== false && proc_close($process) === 0 || throw new Problem(
            "$trouble: ".trim((string) file_get_contents($said->path)),
        );
    }

    /** @return array{string, Secret} */
    private static function named(): array
    {
        $named = (array) config('cellarium.self_backup.database');

        return ($named['username'] ?? '') === ''
            ? throw new Problem('No user is named that may write the database out. ./start makes one and fills in '
                .'DB_BACKUP_USERNAME and DB_BACKUP_PASSWORD in .env.')
            : [(string) $named['username'], new Secret((string) $named['password'])];
    }

    /** @return array<string, mixed> */
    private static function settings(): array
    {
        return (array) config('database.connections.'.config('database.default'));
    }
}
