<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;

/**
 * The directory that the paths of a run begin at, and the one in it that visitors come in at.
 *
 * Mostly one and the same. An application whose public folder is the document root begins above it, and what lies
 * beside that folder has no address.
 */
final readonly class RunPlace
{
    /** From the first to the second; null where they are the same. */
    public ?RelativePath $public;

    /** @throws \InvalidArgumentException when visitors come in elsewhere */
    public function __construct(public RemotePath $root, public RemotePath $served)
    {
        if (! $root->contains($served)) {
            throw new \InvalidArgumentException("$served does not lie in $root");
        }
        $this->public = $root->toward($served);
    }

    /** A path or a pattern below the served directory, as the run has it. */
    public function inRun(string $belowServed): string
    {
        return $this->public === null ? $belowServed : "$this->public/$belowServed";
    }

    /**
     * @param  list<string>  $belowServed  paths or patterns
     * @return list<string>
     */
    public function allInRun(array $belowServed): array
    {
        return array_map($this->inRun(...), $belowServed);
    }
}
