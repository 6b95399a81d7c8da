<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Alarm;
use App\Models\AlarmKind;
use App\Models\Backup;
use Illuminate\Support\Facades\DB;

/** The clock of the machine leaps, either way: nothing is removed for its age. */
final class ClockTest extends AppTestCase
{
    public function test_when_the_clock_leaps_ahead_nothing_is_removed_for_its_age_until_a_day_has_gone_by(): void
    {
        $this->deployed(['index.html' => 'one']);
        $this->deployed(['index.html' => 'two']);
        $this->account->client->update(['removed_at' => now()]);
        $this->artisan('cellarium:recover');
        $before = self::contents($this->var);
        $this->travel(10)->years();
        foreach (['cellarium:clean', 'cellarium:expire'] as $command) {
            [$status, $said] = $this->artisanJson(substr($command, 10));
            self::assertSame(1, $status, $command);
            self::assertStringContainsString('Nothing is removed for its age until', (string) $said['error'], $command);
        }
        self::assertSame(array_filter(array_keys($before), self::isKept(...)), array_filter(
            array_keys(self::contents($this->var)),
            self::isKept(...),
        ));
        self::assertSame(0, Backup::where('state', 'expired')->count());
        self::assertSame(1, DB::table('clients')->whereNotNull('removed_at')->count(), 'nor a client that was removed');
        $this->actingAs($this->person)->get('/')->assertSee(AlarmKind::Clock->title());
        for ($hour = 0; $hour <= 24; $hour++) {
            $this->travel(1)->hours();
            $this->artisan('cellarium:recover');
        }
        self::assertSame(0, Alarm::where('kind', AlarmKind::Clock)->count());
        self::assertSame(0, $this->artisanJson('clean')[0]);
    }

    private static function isKept(string $path): bool
    {
        return preg_match('#^/(contents|backups|manifests|runs|keys)/#', $path) === 1;
    }
}
