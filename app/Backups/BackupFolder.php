<?php

declare(strict_types=1);

namespace App\Backups;

use App\Models\Backup;
use App\Models\Person;
use App\Models\Site;
use App\Text\Amount;
use Carbon\CarbonImmutable;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Illuminate\Support\Collection;

/** One folder of a backup, to look at and to choose from. */
final readonly class BackupFolder
{
    /** Rows that are shown; of a folder with more, the rest is said. */
    private const MOST = 500;

    /** @var list<array{path: string, name: string, isFolder: bool, holds: string, modified: string}> folders first */
    public array $rows;

    public int $left;

    /** @var array<string, string> names of the folders above by their paths */
    public array $trail;

    /** @var Collection<int, Site> other sites of the client */
    public Collection $others;

    public function __construct(public Backup $backup, Manifest $manifest, public string $in)
    {
        $below = $in === '' ? '' : "$in/";
        $folders = [];
        $files = [];
        foreach ($manifest->all() as $entry) {
            $path = $entry->path->toString();
            if ($below !== '' && ! str_starts_with($path, $below)) {
                continue;
            }
            $rest = substr($path, strlen($below));
            $slash = strpos($rest, '/');
            if ($slash !== false || $entry->kind === EntryKind::Directory) {
                $name = $slash === false ? $rest : substr($rest, 0, $slash);
                $folders[$name] ??= [0, 0];
                $folders[$name][0] += $entry->isFile() ? 1 : 0;
                $folders[$name][1] += $entry->size;
            } elseif ($entry->isFile()) {
                $files[$rest] = [$entry->size, $entry->modified];
            }
        }
        ksort($folders, SORT_NATURAL);
        ksort($files, SORT_NATURAL);
        $rows = [];
        foreach ($folders as $name => [$count, $bytes]) {
            $rows[] = [
                'path' => "$below$name",
                'name' => (string) $name,
                'isFolder' => true,
                'holds' => Amount::files($count).', '.Amount::bytes($bytes),
                'modified' => '',
            ];
        }
        foreach ($files as $name => [$bytes, $modified]) {
            $rows[] = [
                'path' => "$below$name",
                'name' => (string) $name,
                'isFolder' => false,
                'holds' => Amount::bytes($bytes),
                'modified' => $modified === null
                    ? ''
                    : CarbonImmutable::createFromTimestamp($modified)->shown('j M Y H:i'),
            ];
        }
        $this->rows = array_slice($rows, 0, self::MOST);
        $this->left = count($rows) - count($this->rows);
        $trail = [];
        $segments = $in === '' ? [] : explode('/', $in);
        foreach ($segments as $depth => $name) {
            $trail[implode('/', array_slice($segments, 0, $depth + 1))] = $name;
        }
        $this->trail = $trail;
        $this->others = Site::whereIn('id', Person::viewer()?->sitesOf($backup->site->owner()->id) ?? [])
            ->whereKeyNot($backup->site_id)
            ->orderBy('domain')
            ->get(['id', 'domain']);
    }
}
