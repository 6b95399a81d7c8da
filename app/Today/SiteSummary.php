<?php

declare(strict_types=1);

namespace App\Today;

use App\Models\Account;
use App\Models\Site;
use App\Text\Amount;

/** One site on its shelf: shape and words say the same. */
final readonly class SiteSummary
{
    public string $tone;

    public bool $empty;

    public bool $proven;

    public bool $overdue;

    /**
     * @param  float|null  $fill  share of the account's space, 0 to 1, null where not known
     * @param  bool  $open  whether an FTP user of its account is open
     */
    public function __construct(
        public Site $site,
        public Account $account,
        public ?float $fill,
        public bool $open,
    ) {
        $this->empty = $site->placeholder === true;
        $this->proven = $site->live_proven_at !== null;
        $backup = $site->last_backup_at;
        $this->overdue =
            ! $this->empty && ($backup === null || $site->backup_promised_at?->isPast() === true);
        $late = $open && $account->ftpUsers->contains(static fn ($user): bool => $user->isOverdue());
        $this->tone = match (true) {
            $late => 'now',
            $this->empty => 'plain',
            $this->overdue => 'soon',
            default => 'proven',
        };
    }

    /**
     * Height of the filling in a jar of 40 units; a little is always seen, so that full and empty differ at a glance.
     */
    public function level(): float
    {
        return $this->fill === null || $this->empty ? 0.0 : round(5 + 33 * sqrt($this->fill), 1);
    }

    /** Whether its live page is proven, in two words. */
    public function live(): string
    {
        return match (true) {
            $this->empty => 'nothing deployed',
            $this->proven => 'proven '.$this->site->live_proven_at?->shown('j M')
                .($this->site->live_sampled ? ', a sample' : ''),
            default => 'not proven',
        };
    }

    public function words(): string
    {
        $words = [
            match (true) {
                $this->empty => 'nothing deployed',
                $this->proven => 'live page proven '.$this->site->live_proven_at->shown('j M')
                    .($this->site->live_sampled ? ' by a sample' : ''),
                default => 'live page not proven',
            },
            $this->open ? 'an FTP user is open' : null,
            match (true) {
                ! $this->overdue => null,
                $this->site->last_backup_at === null => 'no backup yet',
                default => 'backup overdue',
            },
            $this->site->bytes === null ? null : Amount::bytes((int) $this->site->bytes),
        ];

        return implode(', ', array_filter($words));
    }
}
