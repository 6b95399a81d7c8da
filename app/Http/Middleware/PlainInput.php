<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/**
 * Turns away what no form of ours sends: bytes that are no text, NUL, and lists where one value is meant.
 *
 * What is left is text, so that nothing behind has to ask again before it compares, stores or shows it.
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
        'sites',
        'directories',
    ];

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
        $wrong = [];
        foreach ($given as $name => $value) {
            $plain = is_array($value)
                ? in_array($name, self::LISTS, true)
                    && array_filter(
                        $value,
                        static fn (mixed $item): bool => ! is_scalar($item) || ! self::isText((string) $item),
                    ) === []
                : $value === null || self::isText((string) $value);
            if (! $plain || ! self::isText((string) $name)) {
                $wrong[] = mb_substr(mb_scrub((string) $name), 0, 40);
            }
        }

        return $wrong;
    }

    private static function isText(string $value): bool
    {
        return ! str_contains($value, "\0") && mb_check_encoding($value, 'UTF-8');
    }

    private function refusal(Request $request, string $field): Response
    {
        $words = 'What was sent '
            ."in “{$field}” is not what a form of Cellarium sends: bytes that are no text, or several values where "
            .'one is meant. Nothing was changed.';

        return $request->header('HX-Request') === 'true'
            ? response()->view('parts.trouble', ['trouble' => $words])
            : response()->view('errors.plain', ['title' => 'Not understood', 'words' => $words], 400);
    }
}
