<?php

declare(strict_types=1);

namespace Cellarium\Core\Reach;

use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Manifest\EntryKind;

/** A directory as a look into it has shown it; one that was not looked into may hold anything. */
final readonly class SeenDirectory
{
    private const MOST_NAMES = 20;

    /**
     * @param  int  $files  that are neither directories nor links
     * @param  list<string>  $secrets  names that tell of passwords or keys, the first twenty
     * @param  list<string>  $backups  names that tell of copies and dumps, the first twenty
     * @param  int  $scripts  files that a web server may run
     * @param  array<string, string|null>  $links  where they point, by name; null where the server does not tell
     */
    private function __construct(
        public bool $looked,
        public int $files = 0,
        public array $secrets = [],
        public array $backups = [],
        public int $scripts = 0,
        public array $links = [],
    ) {
    }

    public static function unseen(): self
    {
        return new self(false);
    }

    /** @param  list<RemoteEntry>  $entries  all of them */
    public static function holding(array $entries): self
    {
        $files = $scripts = 0;
        $secrets = $backups = $links = [];
        foreach ($entries as $entry) {
            $telling = NameClue::ofName($entry->name);
            if ($entry->kind === EntryKind::Link) {
                $links[$entry->name] = $entry->target;
            } elseif ($entry->kind !== EntryKind::Directory) {
                $files++;
                $scripts += $telling === NameClue::Script ? 1 : 0;
            }
            if ($telling === NameClue::Secret && $entry->kind !== EntryKind::Directory) {
                $secrets[] = $entry->name;
            }
            if ($telling === NameClue::Backup) {
                $backups[] = $entry->name;
            }
        }

        return new self(
            true,
            $files,
            array_slice($secrets, 0, self::MOST_NAMES),
            array_slice($backups, 0, self::MOST_NAMES),
            $scripts,
            $links,
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['looked' => $this->looked]
            + array_filter([
                'files' => $this->files,
                'secrets' => $this->secrets,
                'backups' => $this->backups,
                'scripts' => $this->scripts,
                'links' => $this->links,
            ]);
    }

    public static function fromFields(JsonFields $fields): self
    {
        $links = [];
        foreach ($fields->has('links') ? $fields->fields('links')->keys() : [] as $name) {
            $links[$name] = $fields->fields('links')->textOrNull($name);
        }

        return new self(
            $fields->flag('looked'),
            $fields->numberOrNull('files') ?? 0,
            $fields->has('secrets') ? $fields->texts('secrets') : [],
            $fields->has('backups') ? $fields->texts('backups') : [],
            $fields->numberOrNull('scripts') ?? 0,
            $links,
        );
    }
}
