<?php

declare(strict_types=1);

namespace App\Models;

use Carbon\CarbonImmutable;
use Cellarium\Core\Path\RemotePath;

/** An account that a site is or was in, and for how long: who could sign in there could touch it. */
final readonly class SiteHome
{
    /**
     * @param  RemotePath  $root  where all of the site begins there
     * @param  CarbonImmutable|null  $since  null for as long as it is known
     * @param  CarbonImmutable|null  $until  null while it is there
     */
    public function __construct(
        public Account $account,
        public RemotePath $root,
        public ?CarbonImmutable $since,
        public ?CarbonImmutable $until,
    ) {
    }

    /** Whether it was here at any moment between two. */
    public function isWithin(CarbonImmutable $from, CarbonImmutable $until): bool
    {
        return ($this->since === null || $this->since <= $until) && ($this->until === null || $this->until >= $from);
    }

    /** Whether an FTP user of the account could touch it here at any moment between two. */
    public function wasReachedBy(FtpUser $user, CarbonImmutable $from, CarbonImmutable $until): bool
    {
        $from = max($from, $this->since ?? $from);
        $until = min($until, $this->until ?? $until);
        $directory = $user->path();

        return $user->created_at <= $until
            && ($user->closed_at === null || $user->closed_at >= $from)
            && $from <= $until
            && ($directory->contains($this->root) || $this->root->contains($directory));
    }
}
