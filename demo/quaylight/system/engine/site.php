<?php

declare(strict_types=1);

namespace Quaylight;

/** A site: what it holds in data/site.json, drawn by its theme, with what its extensions add. */
final class Site
{
    /** @var array{title?: string, keeper?: string, theme?: string, pages?: array<string, array{string, string}>} */
    private array $data;

    public function __construct(private readonly string $root)
    {
        $text = @file_get_contents("$root/data/site.json");
        $this->data = $text === false ? [] : (array) json_decode($text, true);
    }

    public function isSetUp(): bool
    {
        return isset($this->data['title']);
    }

    /** Gives back what is wrong, "" where nothing is. */
    public function setUp(string $title, string $password): string
    {
        if (trim($title) === '' || strlen($password) < 8) {
            return 'Give it a name, and a password of eight letters or more.';
        }
        $data = [
            'title' => trim($title),
            'keeper' => password_hash($password, PASSWORD_DEFAULT),
            'theme' => 'plain',
            'pages' => ['home' => [trim($title), 'The lamp is lit. More will stand here soon enough.']],
        ];
        is_dir("$this->root/data") || @mkdir("$this->root/data", 0775);
        $written = @file_put_contents("$this->root/data/site.json", json_encode($data));

        return $written === false ? 'data/ cannot be written to; give the web server the right to.' : '';
    }

    public function isKeeper(string $password): bool
    {
        return password_verify($password, $this->data['keeper'] ?? '');
    }

    public function page(string $name): string
    {
        $page = $this->data['pages'][$name] ?? null;
        if ($page === null) {
            http_response_code(404);
            $page = ['Not here', 'There is no such page.'];
        }
        [$heading, $text] = $page;
        foreach (glob("$this->root/extensions/*/extension.php") ?: [] as $extension) {
            $text = (require $extension)($text);
        }
        $theme = "$this->root/themes/".basename($this->data['theme'] ?? 'plain').'/page.php';
        $title = $this->data['title'] ?? 'Quaylight';

        return (require is_file($theme) ? $theme : "$this->root/themes/plain/page.php")($title, $heading, $text);
    }
}
