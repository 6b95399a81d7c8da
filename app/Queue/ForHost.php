<?php

declare(strict_types=1);

namespace App\Queue;

/** A job that waits for the answers of one host. */
interface ForHost
{
    /** Null where it asks none, or where what it was about is gone. */
    public function host(): ?string;
}
