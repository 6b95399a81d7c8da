<?php

declare(strict_types=1);

// For PHP's own web server: what lies in public/ is served as it is, everything else goes to the application.
$file = realpath(__DIR__.urldecode((string) parse_url((string) $_SERVER['REQUEST_URI'], PHP_URL_PATH)));
if ($file !== false && is_file($file) && str_starts_with($file, __DIR__.'/') && ! str_ends_with($file, '.php')) {
    return false;
}

require __DIR__.'/index.php';
