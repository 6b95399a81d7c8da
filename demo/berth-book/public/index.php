<?php

declare(strict_types=1);

require __DIR__.'/../src/Berths.php';

?>
<!doctype html>
<html lang="en">
<meta charset="utf-8">
<title>Berths at Kelpie Boatyard</title>
<link rel="stylesheet" href="/style.css">
<h1>Berths</h1>
<dl>
    <?php foreach (Kelpie\Berths::all() as $berth => $boat) { ?>
        <dt><?= htmlspecialchars($berth) ?></dt>
        <dd><?= htmlspecialchars($boat) ?></dd>
    <?php } ?>
</dl>
