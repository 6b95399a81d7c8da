<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Finding;

use Cellarium\Core\Manifest\Manifest;

/** Names of files that stand anywhere in the text of another one: scripts put addresses together in many ways. */
final class Mentions
{
    /** @var array<string, true> last names of the files there are */
    private array $names = [];

    /** @var array<string, true> */
    private array $mentioned = [];

    /** Whether a text could not be read to its end; then nothing is said to be named nowhere. */
    private bool $missedSome = false;

    private readonly string $pattern;

    public function __construct(Manifest $manifest)
    {
        $endings = [];
        foreach ($manifest->files() as $file) {
            $name = $file->path->name();
            $this->names[$name] = true;
            $ending = pathinfo($name, PATHINFO_EXTENSION);
            preg_match('/\A\w{1,12}\z/', $ending) === 1 && $endings[$ending] = "\\.$ending";
        }
        // Each word is read once: it begins neither within one nor behind its dot, and nothing of it is given back.
        $letter = '[\w%@\x80-\xff-]';
        $this->pattern = $endings === [] ? '' : "~(?<!$letter)(?<!$letter\\.)$letter++(?:\\.$letter++)++"
            .'(?<='.implode('|', $endings).')~';
    }

    public function note(string $file, string $text): void
    {
        if ($this->pattern === '' || ! str_contains($text, '.')) {
            return;
        }
        $this->missedSome = preg_match_all($this->pattern, $text, $match) === false || $this->missedSome;
        foreach ($match[0] as $name) {
            $name = str_contains($name, '%') ? rawurldecode($name) : $name;
            if (isset($this->names[$name]) && $name !== $file) {
                $this->mentioned[$name] = true;
            }
        }
    }

    public function has(string $name): bool
    {
        return $this->missedSome || isset($this->mentioned[$name]);
    }
}
