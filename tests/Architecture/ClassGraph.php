<?php

declare(strict_types=1);

namespace Tests\Architecture;

use PhpParser\Node;
use PhpParser\NodeTraverser;
use PhpParser\NodeVisitor\NameResolver;
use PhpParser\NodeVisitorAbstract;
use PhpParser\ParserFactory;

/** Which class uses which, read from the code itself: names in code and imports, so what docblocks name counts too. */
final readonly class ClassGraph
{
    /** @param  array<string, list<string>>  $uses  class => the names in it that have a namespace */
    public function __construct(private string $root, private array $uses)
    {
    }

    /** @param  string  $root  namespace that the directory holds, with its last backslash */
    public static function ofDirectory(string $directory, string $root): self
    {
        $uses = [];
        $files = new \RecursiveIteratorIterator(
            new \RecursiveDirectoryIterator($directory, \FilesystemIterator::SKIP_DOTS),
        );
        foreach ($files as $file) {
            if ($file instanceof \SplFileInfo && $file->getExtension() === 'php') {
                $uses += self::ofFile((string) file_get_contents($file->getPathname()));
            }
        }
        ksort($uses);

        return new self($root, $uses);
    }

    /** @return array<string, list<string>> */
    private static function ofFile(string $code): array
    {
        $names = new class extends NodeVisitorAbstract
        {
            /** @var array<string, true> */
            public array $used = [];

            /** @var list<string> */
            public array $declared = [];

            public function enterNode(Node $node): null
            {
                if ($node instanceof Node\Name\FullyQualified) {
                    $this->used[$node->toString()] = true;
                } elseif ($node instanceof Node\UseItem) {
                    $this->used[$node->name->toString()] = true;
                } elseif ($node instanceof Node\Stmt\ClassLike && $node->namespacedName !== null) {
                    $this->declared[] = $node->namespacedName->toString();
                }

                return null;
            }
        };
        $traverser = new NodeTraverser(new NameResolver, $names);
        $traverser->traverse((new ParserFactory)->createForHostVersion()->parse($code) ?? []);
        $used = array_values(array_filter(
            array_keys($names->used),
            static fn (string $name): bool => str_contains($name, '\\'),
        ));

        return array_fill_keys($names->declared, $used);
    }

    /** The folder right below the root that a class lies in; "" for the root itself. */
    public function room(string $class): string
    {
        return explode('/', $this->folder($class))[0];
    }

    /** The whole way to it: "Package/Finding". */
    private function folder(string $class): string
    {
        $below = explode('\\', substr($class, strlen($this->root)));

        return implode('/', array_slice($below, 0, -1));
    }

    /** @return list<string> folders with classes */
    public function rooms(): array
    {
        return array_values(array_unique(array_map($this->room(...), array_keys($this->uses))));
    }

    /** @return array<string, array<string, string>> folder => folder it uses => "Class uses Class", one of them */
    public function between(): array
    {
        return $this->steps($this->room(...));
    }

    /**
     * @param  list<string>  $namespaces
     * @return list<string> "Class uses Class" where that is neither of this root nor of these
     */
    public function outside(array $namespaces): array
    {
        $outside = [];
        foreach ($this->uses as $class => $used) {
            foreach ($used as $other) {
                $isKnown = array_filter(
                    [rtrim($this->root, '\\'), ...$namespaces],
                    static fn (string $namespace): bool => str_starts_with("$other\\", "$namespace\\"),
                );
                $isKnown !== [] || $outside[] = "$class uses $other";
            }
        }

        return $outside;
    }

    /**
     * @param  \Closure(string): string  $place  of a class
     * @return array<string, array<string, string>>
     */
    private function steps(\Closure $place): array
    {
        $steps = [];
        foreach ($this->uses as $class => $used) {
            foreach ($used as $other) {
                if (! str_starts_with($other, $this->root)) {
                    continue;
                }
                [$from, $to] = [$place($class), $place($other)];
                if ($from !== $to) {
                    $steps[$from][$to] ??=
                        substr($class, strlen($this->root)).' uses '.substr($other, strlen($this->root));
                }
            }
        }

        return $steps;
    }

    /**
     * The classes that close one circle of folders, at whatever depth, step by step; empty where there is none.
     *
     * @return list<string>
     */
    public function circle(): array
    {
        $between = $this->steps($this->folder(...));
        $done = [];
        foreach (array_keys($between) as $room) {
            $found = self::walk($room, $between, [], $done);
            if ($found !== []) {
                return $found;
            }
        }

        return [];
    }

    /**
     * @param  array<string, array<string, string>>  $between
     * @param  array<string, string>  $path  folder => the step that was taken from it
     * @param  array<string, true>  $done  folders no circle leads through
     * @return list<string>
     */
    private static function walk(string $room, array $between, array $path, array &$done): array
    {
        foreach ($between[$room] ?? [] as $to => $step) {
            $steps = [...$path, $room => $step];
            if (isset($steps[$to])) {
                $at = array_search($to, array_keys($steps), true);

                return array_values(array_slice($steps, (int) $at));
            }
            $found = isset($done[$to]) ? [] : self::walk($to, $between, $steps, $done);
            if ($found !== []) {
                return $found;
            }
        }
        $done[$room] = true;

        return [];
    }
}
