<?php

declare(strict_types=1);

return [
    'default' => 'local',
    'disks' => [
        // Nothing is given out from there; the framework's own address for it is left out.
        'local' => [
            'driver' => 'local',
            'root' => storage_path('app/private'),
            'serve' => false,
            'throw' => true,
        ],
    ],
    'links' => [],
];
