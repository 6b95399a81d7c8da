<?php

declare(strict_types=1);

namespace Cellarium\Standin\World;

use RuntimeException;

/** Lays a new world on disk from a description: accounts, their directories, the host's placeholder pages. */
final readonly class WorldLayer
{
    private const PLACEHOLDER = <<<'HTML'
    <!doctype html>
    <html lang="en"><head><meta charset="utf-8"><title>%1$s is ready</title>
    <style>body{font:18px/1.6 Georgia,serif;margin:14vh auto;max-width:34em;color:#333}
    h1{font-weight:400}</style></head>
    <body><h1>%1$s</h1><p>This web space has been set up by %2$s. Its owner has not put a site here yet.</p>
    <p>Files of the site go into the directory that holds this page.</p></body></html>

    HTML;

    public function __construct(private string $directory)
    {
    }

    /**
     * @param  array{
     *     accounts: list<array{
     *         login: string,
     *         password: string,
     *         host: string,
     *         company: string,
     *         token: string,
     *         space_limit: int,
     *         faults?: array<mixed>,
     *         folders?: list<string>,
     *         files?: array<string, string>,
     *         links?: array<string, string>,
     *         databases?: array<string, array{site: string, tables: array<string, list<list<string>>>}>,
     *         sites: list<array{
     *             domain: string,
     *             document_root: string,
     *             start_pages?: list<string>,
     *             mounts?: array<string, string>,
     *         }>,
     *     }>,
     * }  $description
     * @param  string|null  $content  a directory that may hold a folder for each domain, copied into its document root
     */
    public function lay(array $description, ?string $content): World
    {
        $world = World::create($this->directory);
        foreach ($description['accounts'] as $row) {
            $home = "$this->directory/homes/{$row['login']}";
            foreach (['', '/logs', '/mail'] as $folder) {
                $this->make($home.$folder);
            }
            $sites = [];
            foreach ($row['sites'] as $site) {
                $root = $home.$site['document_root'];
                $this->make($root);
                $old = $content === null ? null : "$content/{$site['domain']}";
                $old !== null && is_dir($old)
                    ? $this->copy($old, $root)
                    : $this->write("$root/default.htm", sprintf(self::PLACEHOLDER, $site['domain'], $row['company']));
                $sites[] = new HostedSite(
                    $site['domain'],
                    $site['document_root'],
                    $site['start_pages'] ?? ['index.html', 'index.htm', 'index.php', 'default.html', 'default.htm'],
                    $site['mounts'] ?? [],
                );
                foreach ($site['mounts'] ?? [] as $directory) {
                    $this->make($home.$directory);
                }
            }
            $this->write("$home/logs/access.log", '');
            $own = new FtpLogin($row['login'], $world->hashPassword($row['password']));
            $this->furnish($home, $row['folders'] ?? [], $row['files'] ?? [], $row['links'] ?? []);
            foreach ($row['databases'] ?? [] as $name => $database) {
                $this->make("$this->directory/databases/{$row['login']}");
                $this->write(
                    "$this->directory/databases/{$row['login']}/$name.json",
                    json_encode($database, JSON_THROW_ON_ERROR),
                );
            }
            $account = new HostedAccount(
                $row['login'],
                $row['host'],
                $home,
                $row['space_limit'],
                $row['token'],
                $sites,
                [$own->login => $own],
            );
            $account->faults = Faults::fromArray($row['faults'] ?? []);
            $world->add($account);
        }
        $world->save();

        return $world;
    }

    /**
     * @param  list<string>  $folders
     * @param  array<string, string>  $files  their text, by path from the home
     * @param  array<string, string>  $links  where they point, by path from the home
     */
    private function furnish(string $home, array $folders, array $files, array $links): void
    {
        foreach ($folders as $folder) {
            $this->make($home.$folder);
        }
        foreach ($files as $path => $text) {
            $this->make(dirname($home.$path));
            $this->write($home.$path, $text);
        }
        foreach ($links as $path => $target) {
            $this->make(dirname($home.$path));
            @symlink($target, $home.$path) || throw new RuntimeException("$path could not be linked.");
        }
    }

    private function make(string $directory): void
    {
        if (! is_dir($directory) && ! @mkdir($directory, 0755, true)) {
            throw new RuntimeException("$directory could not be made.");
        }
    }

    private function write(string $file, string $text): void
    {
        // An account is older than the world around it, which is laid on the first start.
        if (@file_put_contents($file, $text) !== strlen($text) || ! touch($file, time() - 60 * 86400)) {
            throw new RuntimeException("$file could not be written.");
        }
    }

    private function copy(string $from, string $to): void
    {
        $this->make($to);
        foreach (array_diff((array) scandir($from), ['.', '..', false]) as $name) {
            if (is_dir("$from/$name")) {
                $this->copy("$from/$name", "$to/$name");
            } elseif (! copy("$from/$name", "$to/$name") || ! touch("$to/$name", (int) filemtime("$from/$name"))) {
                throw new RuntimeException("$to/$name could not be written.");
            }
        }
    }
}
