<?php

declare(strict_types=1);

require __DIR__.'/quaylight.php';
require __DIR__.'/engine/site.php';

$site = new Quaylight\Site(__DIR__);
if ($site->isSetUp()) {
    http_response_code(403);
    exit('This site is set up already.');
}
$trouble = '';
if ($_SERVER['REQUEST_METHOD'] === 'POST') {
    $trouble = $site->setUp((string) ($_POST['title'] ?? ''), (string) ($_POST['password'] ?? ''));
    if ($trouble === '') {
        header('Location: index.php');
        exit;
    }
}
?>
<!doctype html>
<html lang="en">
<meta charset="utf-8">
<title>Set up Quaylight <?= QUAYLIGHT_VERSION ?></title>
<h1>Set up Quaylight <?= QUAYLIGHT_VERSION ?></h1>
<p><?= htmlspecialchars($trouble) ?></p>
<form method="post">
    <p><label>What the site is called <input name="title" required></label></p>
    <p><label>Password of its keeper <input name="password" type="password" required minlength="8"></label></p>
    <p><button>Set up</button></p>
</form>
