<?php

declare(strict_types=1);

return [
    'default' => env('LOG_CHANNEL', 'single'),
    'channels' => [
        'single' => [
            'driver' => 'single',
            'path' => storage_path('logs/cellarium.log'),
            'level' => env('LOG_LEVEL', 'info'),
            // For their owner only: they name clients, hosts and logins.
            'permission' => 0600,
            'tap' => [App\Record\QuietTraces::class],
        ],
    ],
];
