<?php

declare(strict_types=1);

namespace App\Files;

use App\Failure\Problem;
use App\Hosting\Connections;
use App\Models\Account;
use App\Models\ChangeByHand;
use App\Models\FileDraft;
use App\Models\FileVersion;
use App\Models\Person;
use Cellarium\Core\Connection\RemoteText;
use Cellarium\Core\File\FileChange;
use Cellarium\Core\File\FileChangeRefused;
use Cellarium\Core\File\LineEnds;
use Cellarium\Core\File\NotText;
use Cellarium\Core\File\TextFile;
use Cellarium\Core\File\TextMerge;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Transfer\Surveyor;
use Illuminate\Support\Collection;

/** Texts that people edit in place: opened, kept as drafts, put together with what others saved meanwhile, saved. */
final readonly class TextEditing
{
    /** Whoever was heard of within this time has it open. */
    private const HERE_SECONDS = 45;

    public function __construct(
        private Connections $connections,
        private ContentStore $store,
        private ChangesByHand $changes,
        private TextInspection $inspection,
    ) {
    }

    /** What a person has made of a file so far; begun where they have not opened it yet. */
    public function draft(Account $account, RemotePath $path, Person $person): FileDraft
    {
        return FileDraft::firstOrCreate([
            'account_id' => $account->id,
            'path_hash' => FileVersion::hash($path),
            'person_id' => $person->id,
        ], ['path' => $path->toString(), 'opened_at' => now(), 'here_at' => now()]);
    }

    /**
     * Reads the file as it is now. Where somebody changed it since it was opened, both changes are put together.
     *
     * @throws NotText|FileChangeRefused where it is no text, or no file
     */
    public function open(FileDraft $draft): void
    {
        $path = $draft->path();
        $remote = $this->connections->remote($draft->account);
        $found = $remote->stat($path) ?? throw FileChangeRefused::noLongerThere($path);
        $entry = Surveyor::entry(RelativePath::fromString(ltrim($path->toString(), '/')), $found);
        $entry->isFile() || throw FileChangeRefused::notAFile($path, $entry);
        $bytes = RemoteText::read($remote, $path, TextFile::MOST)
            ?? throw NotText::tooLarge(max($entry->size, TextFile::MOST + 1), TextFile::MOST);
        $theirs = TextFile::fromBytes($bytes);
        $content = $this->store->put([$bytes]);
        $columns = [
            'base_sha256' => $content->sha256,
            'seen' => $entry->toArray(),
            'here_at' => now(),
        ];
        if ($draft->text === null || $draft->base_sha256 === null) {
            $columns += ['text' => null, 'merged' => null, 'opened_at' => now()];
        } elseif ($draft->base_sha256 !== $content->sha256) {
            $columns += $this->merged($draft, $theirs);
        }
        $draft->update($columns);
    }

    /** The file as it was opened. */
    public function base(FileDraft $draft): TextFile
    {
        return $this->held((string) $draft->base_sha256);
    }

    /** @throws NotText */
    public function held(string $sha256): TextFile
    {
        return TextFile::fromBytes($this->store->text($sha256));
    }

    /**
     * Everybody else who has it open now.
     *
     * @return Collection<int, FileDraft>
     */
    public function others(FileDraft $draft): Collection
    {
        return FileDraft::with('person')
            ->where(['account_id' => $draft->account_id, 'path_hash' => $draft->path_hash])
            ->where('person_id', '!=', $draft->person_id)
            ->where('here_at', '>', now()->subSeconds(self::HERE_SECONDS))
            ->get();
    }

    /** @return list<string> who else has it open, in words */
    public function othersInWords(FileDraft $draft): array
    {
        return $this->others($draft)->map(static fn (FileDraft $other): string => sprintf(
            '%s has this file open since %s%s.',
            $other->person->name,
            $other->opened_at->shown('H:i'),
            $other->text === null ? '' : ', and has changed it without saving yet',
        ))->values()->all();
    }

    /**
     * Keeps what was typed; null only says that somebody is still there.
     *
     * @throws NotText where it became too large
     */
    public function keep(FileDraft $draft, ?string $text): void
    {
        // Forms send every line end as CRLF (multipart/form-data, RFC 7578 as browsers do it).
        $text = $text === null ? null : LineEnds::plain($text);
        $text === null || strlen($text) <= TextFile::MOST
            || throw NotText::tooLarge(strlen($text), TextFile::MOST);
        $isOther = $text !== null && $draft->base_sha256 !== null && $text !== $this->base($draft)->edited();
        $draft->update(['here_at' => now()] + ($text === null ? [] : [
            'text' => $isOther ? $text : null,
            'typed_at' => now(),
        ]));
    }

    /**
     * @param  string|null  $reason  why it is saved although the inspection stops it
     *
     * @throws NotText|Problem where a character has no place in the file's encoding, nothing was changed, or what was
     *     written must not be public
     */
    public function orderSave(
        FilePlace $place,
        FileDraft $draft,
        ?Person $person,
        ?string $reason = null,
    ): ChangeByHand {
        $draft->text === null && throw new Problem('Nothing was changed, so nothing is saved.');
        $bytes = $this->base($draft)->bytesOf($draft->text);
        $this->inspection->mustBeRight($place, $draft, $bytes, $reason);

        return $this->changes->orderSave(
            $place,
            FileChange::save($draft->path(), $draft->seen(), $this->store->put([$bytes])),
            ['draft' => $draft->id],
            $person,
        );
    }

    /**
     * @return array<string, mixed> columns of the draft
     */
    private function merged(FileDraft $draft, TextFile $theirs): array
    {
        $base = $this->base($draft)->edited();
        $merge = TextMerge::fromTexts($base, $theirs->edited(), (string) $draft->text);

        return [
            'text' => $merge->text ?? $draft->text,
            'merged' => [
                'at' => now()->getTimestamp(),
                'base' => $draft->base_sha256,
                'ours' => $this->store->put([(string) $draft->text])->sha256,
                'clashes' => $merge?->clashes,
            ],
        ];
    }
}
