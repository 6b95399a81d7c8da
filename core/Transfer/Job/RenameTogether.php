<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer\Job;

use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Connection\RenamesTogether;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;

/**
 * Many names given in one piece where the server can, see RenamesTogether; one that is refused is an answer and no
 * failure.
 */
final readonly class RenameTogether extends Job
{
    /** @param  non-empty-list<array{RemotePath, RemotePath}>  $renames  from and to */
    public function __construct(public array $renames, string $subject)
    {
        parent::__construct($renames[0][0], $subject);
    }

    /** For each name what was said against it, "" where it is given. */
    public function carryOut(RemoteDirectory $remote, ?ContentStore $store): JobResult
    {
        if ($remote instanceof RenamesTogether) {
            return new JobResult(names: array_map(strval(...), $remote->renameTogether($this->renames)));
        }
        $said = [];
        foreach ($this->renames as [$from, $to]) {
            try {
                $remote->rename($from, $to);
                $said[] = '';
            } catch (RemoteFailure $failure) {
                $failure->reason->isTransient() && throw $failure;
                $said[] = $failure->serverSaid ?? $failure->getMessage();
            }
        }

        return new JobResult(names: $said);
    }

    public function toFields(): array
    {
        $names = [];
        foreach ($this->renames as [$from, $to]) {
            array_push($names, $from->toString(), $to->toString());
        }

        return ['names' => $names];
    }

    public static function fromFields(JsonFields $fields): self
    {
        $renames = [];
        foreach (array_chunk($fields->texts('names'), 2) as [$from, $to]) {
            $renames[] = [RemotePath::fromString($from), RemotePath::fromString($to)];
        }

        return $renames === []
            ? throw new \LogicException('a job that gives no names')
            : new self($renames, $fields->text('subject'));
    }
}
