<?php

declare(strict_types=1);

use Illuminate\Support\Facades\Schedule;

Schedule::command('cellarium:recover')->everyMinute()->withoutOverlapping(10);
Schedule::command('cellarium:sweep')->everyFiveMinutes()->withoutOverlapping(10);
Schedule::command('cellarium:backup --all-due')
    ->everyFiveMinutes()
    ->withoutOverlapping(10)
    ->when(static fn (): bool => (bool) config('cellarium.scheduled_backups'));
Schedule::command('cellarium:expire --dry-run')->hourlyAt(25)->withoutOverlapping(60);
Schedule::command('cellarium:expire')->dailyAt('05:40')->withoutOverlapping(60);
Schedule::command('cellarium:self-backup --nightly')->dailyAt('02:40')->withoutOverlapping(120);
Schedule::command('cellarium:self-backup --rehearse --if-due')->dailyAt('04:40')->withoutOverlapping(120);
Schedule::command('cellarium:verify')->dailyAt('03:20')->withoutOverlapping(720);
Schedule::command('cellarium:rehearse --all-due')->dailyAt('04:10')->withoutOverlapping(720);
Schedule::command('cellarium:clean')->daily()->withoutOverlapping(60);
Schedule::command('cellarium:mail-concerns')->everyTenMinutes()->withoutOverlapping(30);
Schedule::command('cellarium:close-due')->everyMinute()->withoutOverlapping(10);
