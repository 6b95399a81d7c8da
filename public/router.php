<?php

declare(strict_types=1);

// For PHP's own web server: what lies in public/ is served as it is, everything else goes to the application.
$path = urldecode((string) parse_url((string) $_SERVER['REQUEST_URI'], PHP_URL_PATH));
if ($path !== '/' && is_file(__DIR__.$path) && ! str_ends_with($path, '.php')) {
    return false;
}

require __DIR__.'/index.php';
