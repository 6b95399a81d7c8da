<?php

declare(strict_types=1);

namespace App\Files;

use App\Failure\Problem;
use App\Hosting\Connections;
use App\Models\DirectoryListing;
use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\File\VisitorsGet;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Transfer\Surveyor;

/** Asks for the addresses of files as visitors do, several at once, and keeps what came with the listing. */
final readonly class VisitorsAsked
{
    /** So many are asked for in one go. */
    public const MOST = 60;

    public function __construct(private Connections $connections)
    {
    }

    /**
     * One file that was just saved.
     *
     * @param  string|null  $sha256  of what was saved
     * @return array{ok: bool, words: string, address: string, page: string|null}|null null where no address leads to
     *     it; the page is the beginning of what came, in Base64, where that is one
     */
    public function of(FilePlace $place, RemotePath $path, ?string $sha256): ?array
    {
        $address = $place->addressOf($path);
        if ($address === null) {
            return null;
        }
        $answer = $this->connections->web()->fetch($address);
        $get = VisitorsGet::fromAnswer(Surveyor::entry(
            RelativePath::fromString($path->name()),
            new RemoteEntry($path->name(), EntryKind::File, $answer->bytes),
        ), $answer);

        [$isRight, $words] = match (true) {
            $answer->sha256 === $sha256 => [true, 'Visitors get what was saved, to the byte.'],
            $get === VisitorsGet::WhatItMakes => [
                true,
                "Visitors get what it makes: status $answer->status, $answer->bytes bytes.",
            ],
            $get === VisitorsGet::TheFile => [
                false,
                'Visitors get something else than what was saved: a cache in between, or another folder.',
            ],
            default => [false, "Visitors {$get->words($answer->status)}."],
        };

        return [
            'ok' => $isRight,
            'words' => $words,
            'address' => $address,
            'page' => VisitorsPage::isOne($path->name(), $answer) ? base64_encode($answer->head) : null,
        ];
    }

    /**
     * @param  list<string>  $names  in the directory
     * @return list<string> those of them that visitors were refused when they were asked for last
     */
    public function refused(FilePlace $place, array $names): array
    {
        $answers = DirectoryListing::forPath($place->account, $place->at)->answers ?? [];

        return array_values(array_filter(
            $names,
            static fn (string $name): bool => ($answers[$name]['get'] ?? null) === VisitorsGet::Refused->value,
        ));
    }

    /**
     * Files that visitors were refused and that got other rights.
     *
     * @param  non-empty-list<string>  $names  in the directory
     * @return array{ok: bool, words: string}
     */
    public function mended(FilePlace $place, array $names): array
    {
        $this->ask($place, $names);
        $still = $this->refused($place, $names);

        return $still === [] ? [
            'ok' => true,
            'words' => 'Visitors are no longer refused: they were asked for again.',
        ] : [
            'ok' => false,
            'words' => 'Visitors are still refused: '.implode(', ', array_slice($still, 0, 3)).'. The permissions, a '
                .'folder above, or the settings of the web server keep them out.',
        ];
    }

    /**
     * @param  list<string>  $names  in the directory
     * @return int how many answered
     *
     * @throws Problem where nobody can have an address there
     */
    public function ask(FilePlace $place, array $names): int
    {
        $listing = DirectoryListing::forPath($place->account, $place->at);
        $entries = array_column(Listings::entries($listing) ?? [], null, 'name');
        $addresses = [];
        foreach (array_slice($names, 0, self::MOST) as $name) {
            $entry = $entries[$name] ?? null;
            $address = $entry === null ? null : $place->addressOf($place->at->child($name));
            if ($address !== null) {
                $addresses[$name] = $entry->isDirectory() ? "$address/" : $address;
            }
        }
        if ($addresses === [] || $listing === null) {
            throw new Problem("No address leads to $place->at, so visitors get nothing of it.");
        }
        $answers = $this->connections->web()->fetchMany(array_values(array_unique($addresses)));
        $kept = $listing->answers ?? [];
        foreach ($addresses as $name => $address) {
            $entry = $entries[$name];
            $answer = $answers[$address];
            $kept[$name] = VisitorsAnswer::fromAnswer(VisitorsGet::fromAnswer(
                Surveyor::entry(
                    RelativePath::fromString((string) $name),
                    new RemoteEntry((string) $name, $entry->kind, $entry->size),
                ),
                $answer,
            ), $answer)->toArray();
        }
        $listing->update(['answers' => $kept]);

        return count($addresses);
    }
}
