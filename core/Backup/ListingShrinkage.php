<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

/**
 * Much of what was known of a site is no longer listed, and the server says so by every way it was asked: a question.
 */
final readonly class ListingShrinkage
{
    /**
     * @param  int  $known  files at the last look
     * @param  int  $left  how many of them are still listed
     * @param  list<string>  $missing  some of the others, by their paths
     */
    public function __construct(
        public int $known,
        public int $left,
        public array $missing,
    ) {
    }

    public function sentence(): string
    {
        return "The server lists $this->left of the $this->known files it held when last looked at; "
            .implode(', ', array_slice($this->missing, 0, 3))
            .($this->known - $this->left > 3 ? ' and others are' : ' is')
            .' missing, asked by two ways. '
            .'Look at the server; if that is right, say so, and it counts from then on.';
    }
}
