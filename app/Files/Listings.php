<?php

declare(strict_types=1);

namespace App\Files;

use App\Failure\Problem;
use App\Hosting\Connections;
use App\Models\DirectoryListing;
use App\Models\FileVersion;
use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Path\TemporaryName;

/** Looks into directories and keeps what was seen; what could not be read is kept as that, never as empty. */
final readonly class Listings
{
    public function __construct(private Connections $connections, private Provenances $provenances)
    {
    }

    /** @throws RemoteFailure which is written down too; what was seen before stays beside it */
    public function look(FilePlace $place): DirectoryListing
    {
        $at = now();
        try {
            $found = array_values(array_filter(
                $this->connections->remote($place->account)->list($place->at),
                static fn (RemoteEntry $entry): bool => ! TemporaryName::isOne($entry->name),
            ));
        } catch (RemoteFailure $failure) {
            self::keep($place, ['trouble' => Problem::words($failure)]);
            throw $failure;
        }
        $before = DirectoryListing::forPath($place->account, $place->at);
        $entries = $this->provenances->tell($place, $found);

        return self::keep($place, [
            'looked_at' => $at,
            'entries' => self::packed($entries),
            'answers' => self::stillTrue($before, $entries),
            'trouble' => null,
        ]);
    }

    /** @return list<FileEntry>|null null where nobody has looked yet, or nobody could */
    public static function entries(?DirectoryListing $listing): ?array
    {
        $lists = self::lists($listing);

        return $lists === null ? null : array_map(FileEntry::fromList(...), $lists);
    }

    /**
     * The same as it is stored: thousands are sorted before the first is looked at closely.
     *
     * @return list<list<mixed>>|null folders first, by name; see FileEntry::toList()
     */
    public static function lists(?DirectoryListing $listing): ?array
    {
        $text = $listing?->entries;
        $json = $text === null ? null : @gzuncompress((string) base64_decode($text, true));

        return is_string($json) ? json_decode($json, true, flags: JSON_THROW_ON_ERROR) : null;
    }

    /**
     * What visitors got of files that are as they were then.
     *
     * @param  list<FileEntry>  $entries
     * @return array<string, mixed>|null
     */
    private static function stillTrue(?DirectoryListing $before, array $entries): ?array
    {
        $words = $before?->answers === null ? [] : array_flip(array_map(
            static fn (FileEntry $entry): string => $entry->seenWord(),
            self::entries($before) ?? [],
        ));
        $kept = [];
        foreach ($words === [] ? [] : $entries as $entry) {
            $answer = isset($words[$entry->seenWord()]) ? $before->answers[$entry->name] ?? null : null;
            $answer === null || $kept[$entry->name] = $answer;
        }

        return $kept === [] ? null : $kept;
    }

    /** @param  list<FileEntry>  $entries */
    private static function packed(array $entries): string
    {
        $lists = FileOrder::byName(array_map(static fn (FileEntry $entry): array => $entry->toList(), $entries));

        return base64_encode((string) gzcompress(json_encode($lists, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE), 3));
    }

    /** @param  array<string, mixed>  $columns */
    private static function keep(FilePlace $place, array $columns): DirectoryListing
    {
        return DirectoryListing::updateOrCreate([
            'account_id' => $place->account->id,
            'path_hash' => FileVersion::hash($place->at),
        ], ['path' => $place->at->toString()] + $columns);
    }
}
