<?php

declare(strict_types=1);

namespace Tests\App;

use App\FtpUsers\FtpUsers;
use App\Models\FtpUser;
use App\Models\RecordEntry;
use App\Watch\Upkeep;

/** FTP users at a stand-in host: what is true there and what is written down here. */
abstract class FtpUserTestCase extends AppTestCase
{
    protected function users(): FtpUsers
    {
        return app(FtpUsers::class);
    }

    /** @return array<string, mixed>|null what the host has */
    protected function atHost(string $name = 'job'): ?array
    {
        return $this->host->ftpUser($name);
    }

    protected function fresh(FtpUser $user): FtpUser
    {
        return FtpUser::with('account.client', 'account.sites')->findOrFail($user->id);
    }

    protected function settled(FtpUser $user): FtpUser
    {
        self::assertTrue($this->users()->settle($user), (string) $user->trouble);

        return $user->refresh();
    }

    /** Some time later a worker looks for changes that were left half done. */
    protected function later(int $minutes = 2): void
    {
        $this->travel($minutes)->minutes();
        app(Upkeep::class)->order();
    }

    protected static function assertRecorded(string $words): void
    {
        self::assertTrue(RecordEntry::where('sentence', 'like', "%$words%")->exists(), $words);
    }
}
