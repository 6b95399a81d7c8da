<?php

declare(strict_types=1);

require __DIR__.'/quaylight.php';
require __DIR__.'/engine/site.php';

$site = new Quaylight\Site(__DIR__);
if (! $site->isSetUp()) {
    exit('<!doctype html><html lang="en"><meta charset="utf-8"><title>Quaylight '.QUAYLIGHT_VERSION.'</title>'
        .'<h1>Nothing stands here yet</h1><p><a href="setup.php">Set this site up</a></p>');
}
echo $site->page((string) ($_GET['page'] ?? 'home'));
