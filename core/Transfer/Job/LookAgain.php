<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer\Job;

use Cellarium\Core\Connection\LooksAgain;
use Cellarium\Core\Connection\NamesOneByOne;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;

/** A look at a directory over a new connection and by another way than a listing goes. */
final readonly class LookAgain extends Job
{
    /** @param  list<string>  $names  what should be there */
    public function __construct(RemotePath $directory, public array $names)
    {
        parent::__construct($directory);
    }

    public function carryOut(RemoteDirectory $remote, ?ContentStore $store): JobResult
    {
        return new JobResult(names: $remote instanceof LooksAgain
            ? $remote->namesOtherwise($this->path, $this->names)
            : NamesOneByOne::ask($remote, $this->path, $this->names));
    }

    public function toFields(): array
    {
        return ['names' => $this->names];
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self(self::path($fields), $fields->texts('names'));
    }
}
