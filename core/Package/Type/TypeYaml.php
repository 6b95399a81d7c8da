<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Type;

use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Path\PathPattern;
use Cellarium\Core\Path\RelativePath;
use Opis\JsonSchema\Errors\ErrorFormatter;
use Opis\JsonSchema\Validator;
use Symfony\Component\Yaml\Exception\ParseException;
use Symfony\Component\Yaml\Yaml;

/** Package types as YAML, checked against the JSON schema that ships beside the shipped types. */
final readonly class TypeYaml
{
    private const MOST_BYTES = 64_000;

    /** Of one text or pattern, in bytes. */
    private const LONGEST = 2_000;

    private const MOST_STARS = 16;

    /** Where a value begins with an anchor (YAML 1.2, 6.9.2). */
    private const ANCHOR = '/(?:^|[\s\[{,:-])&[^\s,\[\]{}]+/m';

    public function __construct(private string $schema)
    {
    }

    /** @throws TypeRefused */
    public function parse(string $yaml): PackageType
    {
        if (strlen($yaml) > self::MOST_BYTES) {
            throw TypeRefused::because('', 'A package type has at most '.self::MOST_BYTES.' bytes');
        }
        if (preg_match(self::ANCHOR, self::withoutTexts($yaml)) === 1) {
            // A few lines of these unfold to more than there is memory.
            throw TypeRefused::because('', 'Anchors and aliases of YAML (&name, *name) are not taken; write it out');
        }
        try {
            // No tags, no objects, no constants: only texts, numbers and lists.
            $values = Yaml::parse($yaml);
        } catch (ParseException $wrong) {
            throw TypeRefused::because("line {$wrong->getParsedLine()}", 'This is not understood as YAML');
        }
        if (! is_array($values)) {
            throw TypeRefused::because('', 'A package type is a list of names and values');
        }
        $this->check($values);
        array_walk_recursive($values, self::mustBeBounded(...));

        return self::build(new JsonFields($values));
    }

    /** What stands in quotes or behind a number sign is no part of its structure. */
    private static function withoutTexts(string $yaml): string
    {
        return (string) preg_replace('/"(?:[^"\\\\]|\\\\.)*+"|\'(?:[^\']|\'\')*+\'|(?<=^|\s)#[^\n]*/m', '', $yaml);
    }

    /**
     * Patterns are asked of each of tens of thousands of paths.
     *
     * @throws TypeRefused
     */
    private static function mustBeBounded(mixed $value): void
    {
        if (! is_string($value)) {
            return;
        }
        strlen($value) <= self::LONGEST || throw TypeRefused::because(
            mb_substr($value, 0, 40).'…',
            'Nothing in a package type has more than '.self::LONGEST.' bytes',
        );
        substr_count($value, '*') <= self::MOST_STARS || throw TypeRefused::because(
            $value,
            'A pattern has at most '.self::MOST_STARS.' stars',
        );
    }

    /**
     * @param  array<array-key, mixed>  $values
     *
     * @throws TypeRefused
     */
    private function check(array $values): void
    {
        $result = (new Validator)->validate(
            json_decode((string) json_encode($values, JSON_PARTIAL_OUTPUT_ON_ERROR)),
            $this->schema,
        );
        $error = $result->error();
        if ($error !== null) {
            foreach ((new ErrorFormatter)->format($error, false) as $where => $what) {
                throw TypeRefused::because(
                    ltrim((string) $where, '/'),
                    is_string($what) ? $what : 'not as it should be',
                );
            }
        }
    }

    /** @throws TypeRefused where a regular expression is none */
    private static function build(JsonFields $given): PackageType
    {
        $recognise = $given->fields('recognise');
        $goes = $given->fields('goes');
        $needs = $given->has('needs') ? $given->fields('needs') : new JsonFields([]);

        return new PackageType(
            $given->text('id'),
            $given->text('label'),
            array_map(self::marker(...), $recognise->each('markers')),
            $recognise->number('from'),
            self::readFrom($recognise, 'version'),
            self::readFrom($recognise, 'name'),
            Place::from($goes->text('into')),
            $goes->textOrNull('system'),
            $goes->textOrNull('directory'),
            $goes->has('update') && $goes->flag('update'),
            self::globs($given, 'keeps'),
            self::globs($given, 'never'),
            array_map(self::writable(...), $given->has('writable') ? $given->each('writable') : []),
            $given->has('proves') ? $given->texts('proves') : [],
            new Needs(
                $needs->textOrNull('php'),
                $needs->has('extensions') ? $needs->texts('extensions') : [],
                $needs->numberOrNull('bytes'),
            ),
            self::setup($given),
        );
    }

    private static function setup(JsonFields $given): ?SetupPage
    {
        if (! $given->has('setup')) {
            return null;
        }
        $page = $given->fields('setup');

        return new SetupPage($page->text('address'), $page->textOrNull('says'));
    }

    private static function marker(JsonFields $given): Marker
    {
        $holds = $given->textOrNull('holds');

        return new Marker(
            new PathPattern($given->text('file')),
            $given->number('weight'),
            $holds === null ? null : self::expression($holds),
            $given->text('says'),
        );
    }

    private static function writable(JsonFields $given): WritablePath
    {
        $written = $given->text('path');
        $path = RelativePath::tryFromString(rtrim($written, '/'))
            ?? throw TypeRefused::because('', "$written is no path below where the package goes");

        return new WritablePath($path, (int) octdec($given->text('mode')));
    }

    private static function readFrom(JsonFields $given, string $key): ?ReadFrom
    {
        if (! $given->has($key)) {
            return null;
        }
        $place = $given->fields($key);

        return new ReadFrom(new PathPattern($place->text('file')), self::expression($place->text('pattern')));
    }

    /** A regular expression between signs that it may hold itself. */
    private static function expression(string $written): string
    {
        $expression = '~'.str_replace('~', '\~', $written).'~mu';
        if (@preg_match($expression, '') === false) {
            throw TypeRefused::because('', "$written is no regular expression");
        }

        return $expression;
    }

    /** @return list<PathPattern> */
    private static function globs(JsonFields $given, string $key): array
    {
        return array_map(
            static fn (string $pattern): PathPattern => new PathPattern($pattern),
            $given->has($key) ? $given->texts($key) : [],
        );
    }
}
