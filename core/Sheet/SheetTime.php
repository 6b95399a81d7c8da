<?php

declare(strict_types=1);

namespace Cellarium\Core\Sheet;

use Cellarium\Core\Json\JsonFields;
use DateTimeImmutable;
use DateTimeInterface;

/** Moments as a sheet writes them: RFC 3339, in UTC, to the second. */
final class SheetTime
{
    public static function text(int $unixTime): string
    {
        return gmdate(DateTimeInterface::RFC3339, $unixTime);
    }

    public static function textOrNull(?int $unixTime): ?string
    {
        return $unixTime === null ? null : self::text($unixTime);
    }

    /** @throws \UnexpectedValueException when it is no moment */
    public static function read(JsonFields $fields, string $key): int
    {
        $moment = DateTimeImmutable::createFromFormat(DateTimeInterface::RFC3339, $fields->text($key));

        return $moment === false
            ? throw new \UnexpectedValueException("$key is no moment in what was stored.")
            : $moment->getTimestamp();
    }

    /** @throws \UnexpectedValueException when it is neither a moment nor missing */
    public static function orNull(JsonFields $fields, string $key): ?int
    {
        return $fields->has($key) ? self::read($fields, $key) : null;
    }
}
