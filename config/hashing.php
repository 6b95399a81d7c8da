<?php

declare(strict_types=1);

return [
    'driver' => 'argon2id',
    // RFC 9106 by way of OWASP's cheat sheet on storing passwords; tests take the cheapest there is.
    'argon' => [
        'memory' => (int) env('CELLARIUM_HASH_KIB', 65536),
        'threads' => 1,
        'time' => (int) env('CELLARIUM_HASH_ROUNDS', 2),
        'verify' => true,
    ],
    'rehash_on_login' => true,
];
