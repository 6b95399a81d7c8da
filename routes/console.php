<?php

declare(strict_types=1);

use Illuminate\Support\Facades\Schedule;

Schedule::command('cellarium:recover')->everyMinute()->withoutOverlapping(10);
Schedule::command('cellarium:sweep')->everyFiveMinutes()->withoutOverlapping(10);
Schedule::command('cellarium:clean')->daily()->withoutOverlapping(60);
Schedule::command('cellarium:mail-concerns')->everyTenMinutes()->withoutOverlapping(30);
Schedule::command('cellarium:close-due')->everyMinute()->withoutOverlapping(10);
