<?php

declare(strict_types=1);

require __DIR__.'/quaylight.php';
require __DIR__.'/engine/site.php';

$site = new Quaylight\Site(__DIR__);
$said = '';
if ($_SERVER['REQUEST_METHOD'] === 'POST') {
    $said = $site->isKeeper((string) ($_POST['password'] ?? '')) ? 'Welcome back.' : 'That is not the password.';
}
?>
<!doctype html>
<html lang="en">
<meta charset="utf-8">
<title>Sign in · Quaylight <?= QUAYLIGHT_VERSION ?></title>
<h1>Sign in</h1>
<p><?= htmlspecialchars($said) ?></p>
<form method="post"><label>Password <input name="password" type="password"></label> <button>Sign in</button></form>
