<?php

declare(strict_types=1);

require __DIR__.'/../vendor/autoload.php';

// The suites Core and Hosting need nothing else; App needs the database that ./test starts.
if (getenv('DB_DATABASE') === false) {
    putenv('APP_ENV=testing');
}
