<?php

declare(strict_types=1);

namespace App\Plans;

/** Rows of a plan's tree, and how to ask for those that follow. */
final readonly class PlanRows
{
    /**
     * @param  list<PlanRow>  $rows
     * @param  string  $directory  in which they lie; "" is the top
     * @param  int  $next  so many are passed over by whoever asks for more
     * @param  int  $more  that follow right in the directory
     * @param  bool  $isFound  whether they were found by a name, in whichever directory
     */
    public function __construct(
        public array $rows,
        public string $directory = '',
        public int $next = 0,
        public int $more = 0,
        public int $depth = 0,
        public bool $isFound = false,
    ) {
    }
}
