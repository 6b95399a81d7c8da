<?php

declare(strict_types=1);

namespace Cellarium\Core\Proof;

use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Connection\TriesPaths;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Reach\MeantReach;

/**
 * Tries to leave the directory of an FTP user; each way has to be refused or to lead back into it.
 *
 * @internal
 */
final readonly class WaysOut
{
    private const PARENT = ['..', '../..', '../../../../../../..', './../', '/..', '/../../..'];

    /** Spellings of "two dots" and of slashes that were taken for something else on the way through some server. */
    private const ENCODED = [
        '%2e%2e',
        '%2e%2e%2f%2e%2e',
        '..%2f..',
        '..%252f..',
        '..\\..',
        '....//....//',
        '..;/',
        "\xc0\xae\xc0\xae/\xc0\xae\xc0\xae",
        '%2f',
        '~',
        '~/..',
        '-/..',
    ];

    private const MOST_LINKS = 8;

    private const MOST_BYTES = 1_000_000;

    /**
     * @param  list<string>  $own  names where it lands, sorted
     * @param  string|null  $marker  a name that is there and nowhere else
     */
    public function __construct(
        private MeantReach $meant,
        private RemoteDirectory&TriesPaths $asUser,
        private RemoteDirectory $asAccount,
        private array $own,
        private ?string $marker,
    ) {
    }

    /**
     * @param  list<RemoteEntry>  $landed
     * @param  \Closure(string, string, string|null): void  $held  hears name, sentence and answer of each step
     *
     * @throws DoesNotHold|RemoteFailure
     */
    public function tryAll(array $landed, \Closure $held): void
    {
        if ($this->meant->directory->depth() === 0) {
            $held('parent', 'It is meant to have the whole account, so there is nowhere to climb to', null);

            return;
        }
        $held('parent', 'Could not climb above it', $this->each('parent', 'Going up', self::PARENT));
        $held(
            'absolute',
            'Full paths of the account lead nowhere',
            $this->each('absolute', 'A full path', $this->absolute()),
        );
        $held(
            'encoded',
            'Encoded dots and slashes lead nowhere',
            $this->each('encoded', 'A path in disguise', self::ENCODED),
        );
        $this->files($held);
        $links = array_slice(
            array_filter($landed, static fn (RemoteEntry $entry): bool => $entry->kind === EntryKind::Link),
            0,
            self::MOST_LINKS,
        );
        foreach ($links as $link) {
            $this->link($link);
        }
        $held('link', match (count($links)) {
            0 => 'No links lie in it',
            1 => 'The link in it does not lead out',
            default => count($links).' links in it do not lead out',
        }, null);
    }

    /**
     * @param  list<string>  $raws
     * @return string|null what the server said last to one of them
     */
    private function each(string $step, string $how, array $raws): ?string
    {
        $said = null;
        foreach ($raws as $raw) {
            try {
                $entries = $this->asUser->listAt($raw);
            } catch (RemoteFailure $refused) {
                $refused->reason->isTransient() && throw $refused;
                $said = $refused->serverSaid ?? $said;

                continue;
            }
            $answers = $this->asUser->answers();
            $moved = array_filter($answers, static fn (string $line): bool => str_starts_with($line, '250 '));
            $said = $moved === [] ? $said : mb_substr(mb_scrub(end($moved)), 0, 300);
            if (! $this->isHome($entries) && ! $this->isBelow($raw, $entries)) {
                throw new DoesNotHold(
                    $step,
                    "$how led out: \"".mb_scrub($raw).'" shows '.self::some($entries),
                    'Close this user: the host does not keep it in its directory.',
                    $answers === [] ? null : end($answers),
                );
            }
        }

        return $said;
    }

    /**
     * A server may watch over the working directory and not over the names of files: the marker is looked for along
     * ways that only lead to it from outside.
     *
     * @param  \Closure(string, string, string|null): void  $held
     */
    private function files(\Closure $held): void
    {
        if ($this->marker === null) {
            return;
        }
        $directory = $this->meant->directory;
        $round = "{$directory->name()}/$this->marker";
        $said = null;
        foreach (
            [
                "../$round",
                "../../{$directory->parent()->name()}/$round",
                "$directory/$this->marker",
                '..%2f'.strtr($round, ['/' => '%2f']),
                '..\\'.strtr($round, '/', '\\'),
            ] as $raw
        ) {
            if ($this->asUser->sees($raw)) {
                throw new DoesNotHold(
                    'files',
                    "A file is seen by a way round its directory: \"$raw\"",
                    'Close this user: the host does not keep it in its directory.',
                    self::last($this->asUser->answers()),
                );
            }
            $said = self::last($this->asUser->answers()) ?? $said;
        }
        $held('files', 'Files cannot be named by a way round it', $said);
    }

    /** @param  list<string>  $answers */
    private static function last(array $answers): ?string
    {
        return $answers === [] ? null : mb_substr(mb_scrub(end($answers)), 0, 300);
    }

    /** @return list<string> */
    private function absolute(): array
    {
        $raws = ['/'];
        for ($place = $this->meant->directory->parent(); $place->depth() > 0; $place = $place->parent()) {
            $raws[] = $place->toString();
        }
        foreach (array_slice($this->meant->elsewhere, 0, 5) as $place) {
            $raws[] = $place->toString();
        }

        return $raws;
    }

    private function link(RemoteEntry $link): void
    {
        $target = $link->target === null ? null : $this->meant->directory->pointedAt($link->target);
        if ($target !== null && $this->meant->directory->contains($target)) {
            return;
        }
        $broken = fn (): DoesNotHold => new DoesNotHold(
            'link',
            "The link $link->name leads out of {$this->meant->directory}"
                .($link->target === null ? '' : " to $link->target"),
            'Remove the link, or close this user.',
        );
        try {
            $this->asUser->listAt($link->name);
            throw $broken();
        } catch (RemoteFailure $refused) {
            $refused->reason->isTransient() && throw $refused;
        }
        if ($this->isSmallFile($target)) {
            try {
                $sink = fopen('php://temp', 'w+b');
                assert($sink !== false);
                $this->asUser->read(RemotePath::root()->child($link->name), $sink);
                throw $broken();
            } catch (RemoteFailure $refused) {
                $refused->reason->isTransient() && throw $refused;
            }
        }
    }

    private function isSmallFile(?RemotePath $target): bool
    {
        try {
            $entry = $target === null ? null : $this->asAccount->stat($target);
        } catch (RemoteFailure $failure) {
            $failure->reason->isTransient() && throw $failure;

            return false; // It lies where not even the account gets to.
        }

        return $entry?->kind === EntryKind::File && ($entry->size ?? 0) <= self::MOST_BYTES;
    }

    /** @param  list<RemoteEntry>  $entries */
    private function isHome(array $entries): bool
    {
        $names = array_map(static fn (RemoteEntry $entry): string => $entry->name, $entries);
        sort($names, SORT_STRING);

        return $this->marker === null ? $names === $this->own : in_array($this->marker, $names, true);
    }

    /**
     * Whether it is a directory inside that has this very name.
     *
     * @param  list<RemoteEntry>  $entries
     */
    private function isBelow(string $raw, array $entries): bool
    {
        $below = RemotePath::tryFromString(str_starts_with($raw, '/') ? $raw : "/$raw");
        if ($below === null || $below->depth() === 0) {
            return false;
        }
        try {
            $inside = $this->asAccount->list(
                RemotePath::fromString($this->meant->directory->toString().$below->toString()),
            );
        } catch (RemoteFailure $failure) {
            $failure->reason->isTransient() && throw $failure;

            return false;
        }
        $names = static fn (RemoteEntry $entry): string => $entry->name;

        return array_diff(array_map($names, $entries), array_map($names, $inside)) === [];
    }

    /** @param  list<RemoteEntry>  $entries */
    private static function some(array $entries): string
    {
        $names = array_map(static fn (RemoteEntry $entry): string => $entry->name, array_slice($entries, 0, 3));

        return $names === []
            ? 'an empty directory'
            : implode(', ', $names).(count($entries) > 3 ? ' and '.(count($entries) - 3).' more' : '');
    }
}
