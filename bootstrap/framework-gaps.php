<?php

declare(strict_types=1);

/**
 * What four packages would have brought that Laravel 12 and Carbon 3 ask for, and that the package registry
 * copy used here does not hold: `symfony/polyfill-php85` (four functions) and `symfony/clock` (two types that
 * Carbon names). `composer.json` lists all four under `replace`; `fruitcake/php-cors` and `league/commonmark`
 * need nothing in their place, because the HandleCors middleware is taken out and no Markdown is rendered.
 * Each part steps aside as soon as the real one is there.
 */

namespace {
    if (! function_exists('array_first')) {
        function array_first(array $array): mixed
        {
            return $array === [] ? null : $array[array_key_first($array)];
        }
    }

    if (! function_exists('array_last')) {
        function array_last(array $array): mixed
        {
            return $array === [] ? null : $array[array_key_last($array)];
        }
    }

    if (! function_exists('get_error_handler')) {
        function get_error_handler(): ?callable
        {
            $handler = set_error_handler(null);
            restore_error_handler();

            return $handler;
        }
    }

    if (! function_exists('get_exception_handler')) {
        function get_exception_handler(): ?callable
        {
            $handler = set_exception_handler(null);
            restore_exception_handler();

            return $handler;
        }
    }
}

namespace Symfony\Component\Clock {
    if (! interface_exists(ClockInterface::class)) {
        interface ClockInterface extends \Psr\Clock\ClockInterface
        {
            public function sleep(float|int $seconds): void;

            public function withTimeZone(\DateTimeZone|string $timezone): static;
        }
    }

    if (! class_exists(NativeClock::class)) {
        final class NativeClock implements ClockInterface
        {
            private \DateTimeZone $timezone;

            public function __construct(\DateTimeZone|string|null $timezone = null)
            {
                $this->timezone = $timezone instanceof \DateTimeZone
                    ? $timezone
                    : new \DateTimeZone($timezone ?? date_default_timezone_get());
            }

            public function now(): \DateTimeImmutable
            {
                return new \DateTimeImmutable('now', $this->timezone);
            }

            public function sleep(float|int $seconds): void
            {
                usleep((int) round($seconds * 1_000_000));
            }

            public function withTimeZone(\DateTimeZone|string $timezone): static
            {
                return new self($timezone);
            }
        }
    }
}
