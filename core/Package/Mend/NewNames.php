<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Mend;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Reference\Resolver;

/** The names of a package's files after mending. */
final readonly class NewNames
{
    public Resolver $resolver;

    /** @var array<string, true> paths that are left out, with all below them */
    private array $out;

    /** @var array<string, string> new path by old one */
    private array $renamed;

    /** The directory that becomes the top. */
    private ?string $top;

    /** @param  list<Mend>  $mends */
    public function __construct(Manifest $manifest, array $mends)
    {
        $this->resolver = new Resolver($manifest);
        [$out, $renamed, $top] = [[], [], null];
        foreach ($mends as $mend) {
            $path = (string) $mend->finding->path;
            match ($mend->kind) {
                MendKind::LeaveOut => $out[$path] = true,
                MendKind::RenameStartPage => $renamed[$path] = (string) $mend->finding->suggestion,
                MendKind::LiftDirectory => $top = (string) $mend->finding->suggestion,
                default => null,
            };
        }
        $this->out = $out;
        $this->renamed = $renamed;
        $this->top = $top;
    }

    /** Whether references have to follow a file to its new name; lifting changes none within what is lifted. */
    public function isRenaming(): bool
    {
        return $this->renamed !== [];
    }

    /** @return string|null null where it is left out */
    public function of(string $path): ?string
    {
        for ($above = $path; $above !== '.' && $above !== ''; $above = dirname($above)) {
            if (isset($this->out[$above])) {
                return null;
            }
        }
        $path = $this->renamed($path);
        if ($this->top === null) {
            return $path;
        }

        return str_starts_with($path, "$this->top/") ? substr($path, strlen($this->top) + 1) : null;
    }

    /** The same without lifting: what references within the package call it. */
    public function renamed(string $path): string
    {
        return $this->renamed[$path] ?? $path;
    }

    public function why(string $path): MendKind
    {
        return match (true) {
            isset($this->renamed[$path]) => MendKind::RenameStartPage,
            $this->top !== null => MendKind::LiftDirectory,
            default => MendKind::LeaveOut,
        };
    }
}
