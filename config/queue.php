<?php

declare(strict_types=1);

return [
    'default' => env('QUEUE_CONNECTION', 'database'),

    'connections' => [
        'sync' => ['driver' => 'sync'],
        'database' => [
            'driver' => 'fair',
            'connection' => null,
            'table' => 'jobs',
            'queue' => 'default',
            // So many work at once; one more closes FTP users and does nothing else.
            'workers' => (int) env('CELLARIUM_WORKERS', 12),
        ],
    ],

    'failed' => ['driver' => 'database-uuids', 'database' => env('DB_CONNECTION', 'mariadb'), 'table' => 'failed_jobs'],
];
