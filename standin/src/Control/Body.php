<?php

declare(strict_types=1);

namespace Cellarium\Standin\Control;

use InvalidArgumentException;

/** A JSON object sent to the control service, read by kind. */
final readonly class Body
{
    /** @var array<mixed> */
    public array $values;

    /** @throws InvalidArgumentException when it is not a JSON object */
    public function __construct(string $json)
    {
        $values = json_decode($json, true, 8);
        $this->values = is_array($values) ? $values : throw new InvalidArgumentException('body: not a JSON object');
    }

    public function has(string $key): bool
    {
        return array_key_exists($key, $this->values);
    }

    public function text(string $key): string
    {
        $value = $this->values[$key] ?? null;

        return is_string($value) ? $value : throw new InvalidArgumentException("$key: text is missing");
    }

    public function number(string $key): ?int
    {
        $value = $this->values[$key] ?? null;

        return $value === null || (is_int($value) && $value >= 0)
            ? $value
            : throw new InvalidArgumentException("$key: a whole number of bytes, or null");
    }

    public function flag(string $key): bool
    {
        $value = $this->values[$key] ?? null;

        return is_bool($value) ? $value : throw new InvalidArgumentException("$key: true or false");
    }

    /** @return list<array{string, string}> of a list of objects with two texts each */
    public function pairs(string $key, string $first, string $second): array
    {
        $pairs = [];
        foreach (is_array($this->values[$key] ?? null) ? $this->values[$key] : [] as $row) {
            $one = is_array($row) ? $row[$first] ?? null : null;
            $other = is_array($row) ? $row[$second] ?? null : null;
            $pairs[] = is_string($one) && is_string($other)
                ? [$one, $other]
                : throw new InvalidArgumentException("$key: each has $first and $second");
        }

        return $pairs;
    }
}
