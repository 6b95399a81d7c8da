<?php

declare(strict_types=1);

return [
    'default' => env('MAIL_MAILER', 'file'),
    'mailers' => [
        // Below var/mail, in place of being sent.
        'file' => ['transport' => 'file'],
        'smtp' => [
            'transport' => 'smtp',
            'scheme' => env('MAIL_SCHEME') ?: null,
            'host' => env('MAIL_HOST', '127.0.0.1'),
            'port' => (int) env('MAIL_PORT', 25),
            'username' => env('MAIL_USERNAME') ?: null,
            'password' => env('MAIL_PASSWORD') ?: null,
            'timeout' => 20,
        ],
        'array' => ['transport' => 'array'],
    ],
    'from' => [
        'address' => env('MAIL_FROM_ADDRESS', 'cellarium@localhost'),
        'name' => env('MAIL_FROM_NAME', 'Cellarium'),
    ],
];
