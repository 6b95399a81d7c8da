<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/**
 * Turns away what no form of ours sends: bytes that are no text, NUL, lists where one value is meant, and far more text
 * than a field is for.
 *
 * What is left is text, so that nothing behind has to ask again before it compares, stores or shows it; and what a form
 * remembers of a failed try stays small.
 */
final class PlainInput
{
    /** Fields that are lists. */
    private const LISTS = [
        'columns',
        'users',
        'open',
        'kinds',
        'packages',
        'names',
        'brought',
        'paths',
        'plans',
        'sites',
        'directories',
    ];

    /** Fields for whole files and letters; all others hold MOST_BYTES. */
    private const LONG = ['content', 'letter', 'text', 'yaml'];

    private const MOST_BYTES = 65_536;

    public function handle(Request $request, Closure $next): Response
    {
        $wrong = [...$this->wrong($request->query->all()), ...$this->wrong($request->request->all())];
        if ($wrong !== []) {
            return $this->refusal($request, $wrong[0]);
        }
        if (! self::isText(rawurldecode($request->path()))) {
            return $this->refusal($request, 'the address');
        }

        return $next($request);
    }

    /**
     * @param  array<array-key, mixed>  $given
     * @return list<string> names of fields that are not as meant
     */
    private function wrong(array $given): array
    {
        return array_values(array_map(
            static fn (int|string $name): string => mb_substr(mb_scrub((string) $name), 0, 40),
            array_filter(
                array_keys($given),
                static fn (int|string $name): bool => self::refuses((string) $name, $given[$name]),
            ),
        ));
    }

    /** Whether a field of this name takes no such value, whatever the route. */
    public static function refuses(string $name, mixed $value): bool
    {
        $plain = is_array($value)
            ? in_array($name, self::LISTS, true)
                && array_filter(
                    $value,
                    static fn (mixed $item): bool => ! is_scalar($item) || ! self::fits((string) $item),
                ) === []
            : $value === null || self::fits((string) $value, in_array($name, self::LONG, true));

        return ! $plain || ! self::isText($name);
    }

    private static function fits(string $value, bool $mayBeLong = false): bool
    {
        return ($mayBeLong || strlen($value) <= self::MOST_BYTES) && self::isText($value);
    }

    private static function isText(string $value): bool
    {
        return ! str_contains($value, "\0") && mb_check_encoding($value, 'UTF-8');
    }

    private function refusal(Request $request, string $field): Response
    {
        $words = "What was sent in “{$field}” is not what a form of Cellarium sends: bytes that are no text, several "
            .'values where one is meant, or more text than the field is for. Nothing was changed.';

        return $request->header('HX-Request') === 'true'
            ? response()->view('parts.trouble', ['trouble' => $words])
            : response()->view('errors.plain', ['title' => 'Not understood', 'words' => $words], 400);
    }
}
