<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Path\RelativePath;

/** Answers to the questions of one plan; the nearest answer counts: of the file, of a directory above it, of all. */
final readonly class Answers
{
    /** The scope of the whole plan. */
    public const ALL = '';

    private const ASK = 'ask';

    /** @param  array<string, Choice|null>  $given  by scope; null asks again, whatever holds for what is around it */
    private function __construct(private array $given)
    {
    }

    public static function none(): self
    {
        return new self([]);
    }

    /** The same answer to every question. */
    public static function all(Choice $choice): self
    {
        return new self([self::ALL => $choice]);
    }

    /** @param  string  $scope  a file; a directory, with a slash at its end; or ALL */
    public function with(string $scope, Choice $choice): self
    {
        return new self([$scope => $choice] + $this->outside($scope));
    }

    /** @param  string  $scope  whose questions are open again */
    public function without(string $scope): self
    {
        return new self([$scope => null] + $this->outside($scope));
    }

    public function to(RelativePath $path): ?Choice
    {
        $scope = $path->toString();
        if (array_key_exists($scope, $this->given)) {
            return $this->given[$scope];
        }
        foreach (array_reverse($path->ancestors()) as $above) {
            if (array_key_exists("$above/", $this->given)) {
                return $this->given["$above/"];
            }
        }

        return $this->given[self::ALL] ?? null;
    }

    /** What was said of the file by its own name, whatever was said of those around it. */
    public function toItself(RelativePath $path): ?Choice
    {
        return $this->given[$path->toString()] ?? null;
    }

    public function isNone(): bool
    {
        return $this->given === [];
    }

    /** @return array<string, string> by scope */
    public function toArray(): array
    {
        return array_map(static fn (?Choice $choice): string => $choice->value ?? self::ASK, $this->given);
    }

    public static function fromFields(JsonFields $fields): self
    {
        $given = [];
        foreach ($fields->keys() as $scope) {
            $text = $fields->text($scope);
            $given[$scope] = $text === self::ASK ? null : Choice::from($text);
        }

        return new self($given);
    }

    /** @return array<string, Choice|null> what was said of files and directories that do not lie in the scope */
    private function outside(string $scope): array
    {
        $isOutside = static fn (string|int $one): bool => (string) $one !== $scope
            && ($scope !== self::ALL && ! (str_ends_with($scope, '/') && str_starts_with((string) $one, $scope)));

        return array_filter($this->given, $isOutside, ARRAY_FILTER_USE_KEY);
    }
}
