<?php

declare(strict_types=1);

/**
 * A database of the benchmarks' own on the MariaDB of a running ./start, empty and migrated; dropped at the end.
 *
 * @return array{array<string, string>, \Closure(string ...): void} the environment of processes that use it, and
 *     what runs a command in it
 */
return (static function (): array {
    chdir(__DIR__.'/..');
    $setting = static function (string $name): string {
        preg_match("/^$name=(.*)$/m", (string) @file_get_contents('.env'), $match); // The tests have none.

        return getenv($name) ?: trim($match[1] ?? '', '"');
    };
    $environment = [
        'DB_DATABASE' => 'cellarium_bench',
        'APP_ENV' => 'local',
        'APP_DEBUG' => 'false',
        'PHP_CLI_SERVER_WORKERS' => '2',
    ] + getenv();
    $run = static function (string ...$command) use ($environment): void {
        $process = proc_open($command, [], $pipes, null, $environment);
        if ($process === false || proc_close($process) !== 0) {
            throw new RuntimeException('It did not work: '.implode(' ', $command).'');
        }
    };
    $socket = (str_starts_with($setting('CELLARIUM_VAR'), '/') ? '' : getcwd().'/')
        .$setting('CELLARIUM_VAR')
        .'/mariadb.sock';
    $sql = static fn (string $text) => $run('mariadb', '--no-defaults', "--socket=$socket", '-e', $text);
    $sql(
        'DROP DATABASE IF EXISTS cellarium_bench; CREATE DATABASE cellarium_bench; GRANT ALL ON cellarium_bench.* '
            ."TO '{$setting('DB_USERNAME')}'@'127.0.0.1'",
    );
    register_shutdown_function(static fn () => $sql('DROP DATABASE IF EXISTS cellarium_bench'));
    $run(PHP_BINARY, 'artisan', 'migrate', '--force', '--quiet');

    return [$environment, $run];
})();
