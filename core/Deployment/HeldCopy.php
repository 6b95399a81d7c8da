<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Json\JsonFields;

/** A copy of a replaced file that browsers of earlier visitors may show, and until when. */
final readonly class HeldCopy
{
    /**
     * @param  string  $path  from where the run begins
     * @param  int  $seconds  that the server let it be held for, counted from when it was replaced
     */
    public function __construct(public string $path, public int $seconds)
    {
    }

    /** @return array{path: string, seconds: int} */
    public function toArray(): array
    {
        return ['path' => $this->path, 'seconds' => $this->seconds];
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self($fields->text('path'), $fields->number('seconds'));
    }
}
