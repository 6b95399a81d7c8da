<?php

declare(strict_types=1);

namespace Cellarium\Core\Json;

/** A stored array read back by kind: what is missing or of the wrong kind is an error, never a default. */
final readonly class JsonFields
{
    /** @param  array<mixed>  $values */
    public function __construct(private array $values)
    {
    }

    /** @throws \UnexpectedValueException when it is not a JSON object or list */
    public static function fromJson(string $json): self
    {
        $values = json_decode($json, true, 64);

        return is_array($values)
            ? new self($values)
            : throw new \UnexpectedValueException('This is not the JSON that was stored.');
    }

    public function text(string $key): string
    {
        $value = $this->values[$key] ?? null;

        return is_string($value) ? $value : throw $this->wrong($key, 'text');
    }

    public function textOrNull(string $key): ?string
    {
        return isset($this->values[$key]) ? $this->text($key) : null;
    }

    public function number(string $key): int
    {
        $value = $this->values[$key] ?? null;

        return is_int($value) ? $value : throw $this->wrong($key, 'a whole number');
    }

    public function numberOrNull(string $key): ?int
    {
        return isset($this->values[$key]) ? $this->number($key) : null;
    }

    public function flag(string $key): bool
    {
        $value = $this->values[$key] ?? null;

        return is_bool($value) ? $value : throw $this->wrong($key, 'true or false');
    }

    public function has(string $key): bool
    {
        return isset($this->values[$key]);
    }

    /** @return list<string> */
    public function keys(): array
    {
        return array_map(strval(...), array_keys($this->values));
    }

    public function fields(string $key): self
    {
        $value = $this->values[$key] ?? null;

        return is_array($value) ? new self($value) : throw $this->wrong($key, 'an object');
    }

    /** @return list<string> */
    public function texts(string $key): array
    {
        $texts = [];
        foreach ($this->list($key) as $value) {
            $texts[] = is_string($value) ? $value : throw $this->wrong($key, 'a list of texts');
        }

        return $texts;
    }

    /** @return list<int> */
    public function numbers(string $key): array
    {
        $numbers = [];
        foreach ($this->list($key) as $value) {
            $numbers[] = is_int($value) ? $value : throw $this->wrong($key, 'a list of numbers');
        }

        return $numbers;
    }

    /** @return list<self> */
    public function each(string $key): array
    {
        $rows = [];
        foreach ($this->list($key) as $value) {
            $rows[] = is_array($value) ? new self($value) : throw $this->wrong($key, 'a list of objects');
        }

        return $rows;
    }

    /** @return list<array{string, string}> */
    public function pairs(string $key): array
    {
        $pairs = [];
        foreach ($this->list($key) as $value) {
            $pairs[] = is_array($value) && is_string($value[0] ?? null) && is_string($value[1] ?? null)
                ? [$value[0], $value[1]]
                : throw $this->wrong($key, 'a list of pairs of texts');
        }

        return $pairs;
    }

    /** @return list<mixed> */
    private function list(string $key): array
    {
        $value = $this->values[$key] ?? null;

        return is_array($value) && array_is_list($value) ? $value : throw $this->wrong($key, 'a list');
    }

    private function wrong(string $key, string $kind): \UnexpectedValueException
    {
        return new \UnexpectedValueException("$key is not $kind in what was stored.");
    }
}
