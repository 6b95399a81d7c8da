<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

/** Limits for looking at a server in one go; a site that really is larger needs them raised, a loop never ends. */
final readonly class SurveyLimits
{
    /**
     * @param  int  $entries  files and directories in all
     * @param  int  $depth  directories inside one another
     * @param  int  $seconds  in all
     */
    public function __construct(
        public int $entries = 500_000,
        public int $depth = 60,
        public int $seconds = 3600,
    ) {
    }
}
