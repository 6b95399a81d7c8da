<?php

declare(strict_types=1);

require __DIR__.'/quaylight.php';
require __DIR__.'/engine/site.php';

$site = new Quaylight\Site(__DIR__);
if (! $site->isSetUp()) {
    header('Location: setup.php');
    exit;
}
echo $site->page((string) ($_GET['page'] ?? 'home'));
