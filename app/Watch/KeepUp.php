<?php

declare(strict_types=1);

namespace App\Watch;

use App\Models\FtpUser;
use App\Queue\ForHost;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Does in a queue worker what is due about one FTP user; holds its number and nothing else. */
final class KeepUp implements ForHost, ShouldQueue
{
    use Queueable;

    public int $timeout = 0;

    public function __construct(public readonly int $user, public readonly UpkeepKind $kind)
    {
        $this->onQueue($kind->urgency()->value);
    }

    public function host(): ?string
    {
        return FtpUser::with('account')->find($this->user)?->account->host;
    }

    public function handle(Upkeep $upkeep): void
    {
        $upkeep->carryOut($this->user, $this->kind);
    }
}
