<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Path\RemotePath;

/** One thing for one connection to do; small enough to be handed to another process. */
final readonly class Job
{
    /**
     * @param  RemotePath|null  $to  the new name, for renaming and copying
     * @param  string|null  $local  our file, to send or to fetch into
     * @param  string|null  $content  SHA-256 of contents of the store, to send or to compare with
     * @param  int  $size  bytes to send or expected to come
     * @param  int|null  $mode  to set, before a renaming or by itself, where the server can
     * @param  list<string>  $names  names in the directory that are asked for one by one, for looking again; from and
     *     to of each in turn, for renaming together
     * @param  string  $subject  the path people know it by, below the document root
     * @param  bool  $isListedLater  of sending: whether whoever gives the job compares the size by a listing, which
     *     costs less than asking for each of many files
     * @param  bool  $mayGrow  of keeping: whether more bytes than were listed are taken
     */
    private function __construct(
        public Operation $operation,
        public RemotePath $path,
        public ?RemotePath $to = null,
        public ?string $local = null,
        public int $size = 0,
        public ?int $mode = null,
        public string $subject = '',
        public array $names = [],
        public bool $isListedLater = false,
        public ?string $content = null,
        public bool $mayGrow = false,
    ) {
    }

    public static function list(RemotePath $directory): self
    {
        return new self(Operation::List, $directory);
    }

    public static function fetch(RemotePath $file, string $local, int $size, string $subject): self
    {
        return new self(Operation::Fetch, $file, null, $local, $size, null, $subject);
    }

    /**
     * Reads a file into the store; its hash is the answer.
     *
     * @param  bool  $mayGrow  whether more bytes than were listed are taken as well, of a file that is written to
     *     meanwhile
     */
    public static function keep(RemotePath $file, int $size, string $subject, bool $mayGrow = false): self
    {
        return new self(Operation::Keep, $file, size: $size, subject: $subject, mayGrow: $mayGrow);
    }

    /**
     * Reads a file and hashes it; one that is not given, or not whole, is an answer and no failure.
     *
     * @param  string|null  $content  contents of the store that it should be the same as, where what the server
     *     computes over its own is believed; their hash is the answer then
     */
    public static function hash(RemotePath $file, int $size, string $subject, ?string $content = null): self
    {
        return new self(Operation::Hash, $file, size: $size, subject: $subject, content: $content);
    }

    /**
     * Looks at a directory over a new connection and by another way than a listing goes.
     *
     * @param  list<string>  $names  what should be there
     */
    public static function lookAgain(RemotePath $directory, array $names): self
    {
        return new self(Operation::LookAgain, $directory, names: $names);
    }

    public static function send(
        string $local,
        RemotePath $file,
        int $size,
        string $subject,
        bool $isListedLater = false,
    ): self {
        return new self(
            Operation::Send,
            $file,
            local: $local,
            size: $size,
            subject: $subject,
            isListedLater: $isListedLater,
        );
    }

    /** @param  string  $content  SHA-256 of contents of the store */
    public static function sendContent(
        string $content,
        RemotePath $file,
        int $size,
        string $subject,
        bool $isListedLater = false,
    ): self {
        return new self(
            Operation::Send,
            $file,
            size: $size,
            subject: $subject,
            isListedLater: $isListedLater,
            content: $content,
        );
    }

    public static function rename(RemotePath $from, RemotePath $to, ?int $mode, string $subject): self
    {
        return new self(Operation::Rename, $from, $to, null, 0, $mode, $subject);
    }

    /**
     * Gives all names in one piece where the server can, see RenamesTogether; one that is refused is an answer and no
     * failure.
     *
     * @param  non-empty-list<array{RemotePath, RemotePath}>  $renames  from and to
     */
    public static function renameTogether(array $renames, string $subject): self
    {
        $names = [];
        foreach ($renames as [$from, $to]) {
            array_push($names, $from->toString(), $to->toString());
        }

        return new self(Operation::RenameTogether, $renames[0][0], subject: $subject, names: $names);
    }

    /**
     * Has the server copy one of its files, or, where it does not, sends ours.
     *
     * @param  string  $content  SHA-256 of contents of the store that are the same
     */
    public static function copy(
        RemotePath $from,
        RemotePath $to,
        string $content,
        int $size,
        string $subject,
        bool $isListedLater = false,
    ): self {
        return new self(
            Operation::Copy,
            $from,
            $to,
            size: $size,
            subject: $subject,
            isListedLater: $isListedLater,
            content: $content,
        );
    }

    /** Removes a file that may be gone already. */
    public static function discard(RemotePath $file, string $subject = ''): self
    {
        return new self(Operation::Discard, $file, subject: $subject);
    }

    public static function makeDirectory(RemotePath $directory, string $subject): self
    {
        return new self(Operation::MakeDirectory, $directory, subject: $subject);
    }

    public static function removeDirectory(RemotePath $directory, string $subject): self
    {
        return new self(Operation::RemoveDirectory, $directory, subject: $subject);
    }

    /** A server that does not set modes is an answer and no failure. */
    public static function setMode(RemotePath $path, int $mode, string $subject): self
    {
        return new self(Operation::SetMode, $path, mode: $mode, subject: $subject);
    }

    /** @return non-empty-list<array{RemotePath, RemotePath}> what renameTogether() was given */
    public function renames(): array
    {
        $renames = [];
        foreach (array_chunk($this->names, 2) as [$from, $to]) {
            $renames[] = [RemotePath::fromString($from), RemotePath::fromString($to)];
        }

        return $renames === [] ? throw new \LogicException('a job that gives no names') : $renames;
    }

    /** The same job with what we have, for a server that does not copy its own. */
    public function asSending(): self
    {
        return self::sendContent(
            (string) $this->content,
            $this->to ?? $this->path,
            $this->size,
            $this->subject,
            $this->isListedLater,
        );
    }

    /** @return array<string, string|int|bool|list<string>|null> */
    public function toArray(): array
    {
        return [
            'operation' => $this->operation->value,
            'path' => $this->path->toString(),
            'to' => $this->to?->toString(),
            'local' => $this->local,
            'size' => $this->size,
            'mode' => $this->mode,
            'subject' => $this->subject,
            'names' => $this->names,
            'is_listed_later' => $this->isListedLater,
            'content' => $this->content,
            'may_grow' => $this->mayGrow,
        ];
    }

    public static function fromFields(JsonFields $fields): self
    {
        $to = $fields->textOrNull('to');

        return new self(
            Operation::from($fields->text('operation')),
            RemotePath::fromString($fields->text('path')),
            $to === null ? null : RemotePath::fromString($to),
            $fields->textOrNull('local'),
            $fields->number('size'),
            $fields->numberOrNull('mode'),
            $fields->text('subject'),
            $fields->texts('names'),
            $fields->flag('is_listed_later'),
            $fields->textOrNull('content'),
            $fields->flag('may_grow'),
        );
    }
}
