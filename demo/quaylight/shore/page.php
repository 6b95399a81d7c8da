<?php

declare(strict_types=1);

return static fn (string $title, string $heading, string $text): string => '<!doctype html><html lang="en">'
    .'<meta charset="utf-8"><title>'.htmlspecialchars("$heading · $title").'</title>'
    .'<link rel="stylesheet" href="themes/shore/style.css"><header>'.htmlspecialchars($title).'</header>'
    .'<main><h1>'.htmlspecialchars($heading).'</h1><p>'.htmlspecialchars($text).'</p></main>'
    .'<footer>Shore, on Quaylight '.QUAYLIGHT_VERSION.'</footer>';
