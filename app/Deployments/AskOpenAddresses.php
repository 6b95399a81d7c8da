<?php

declare(strict_types=1);

namespace App\Deployments;

use App\Models\Site;
use App\Queue\ForHost;
use Cellarium\Core\Work\Urgency;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Asks in a queue worker whether what is open at a site answers visitors still. */
final class AskOpenAddresses implements ForHost, ShouldQueue
{
    use Queueable;

    public int $timeout = 0;

    public function __construct(public readonly int $site)
    {
        $this->onQueue(Urgency::Sweep->value);
    }

    public function host(): ?string
    {
        return Site::with('account')->find($this->site)?->account->host;
    }

    public function handle(OpenAddresses $addresses): void
    {
        $site = Site::with('account')->find($this->site);
        $site === null || $addresses->askAgain($site);
    }
}
