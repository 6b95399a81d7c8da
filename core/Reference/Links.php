<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

use Cellarium\Core\Json\JsonFields;

/** Links between the files of a site, and how often. */
final readonly class Links
{
    /**
     * @param  array<string, array<string, int>>  $to  by the path that refers, by the path that is referred to
     */
    public function __construct(public array $to)
    {
    }

    /** @return array<string, int> how often each file refers to this one */
    public function from(string $path): array
    {
        $found = [];
        foreach ($this->to as $from => $targets) {
            isset($targets[$path]) && $found[(string) $from] = $targets[$path];
        }

        return $found;
    }

    /**
     * Files that visitors come to who begin at one of these.
     *
     * @param  list<string>  $starts
     * @return array<string, true> as keys
     */
    public function reached(array $starts): array
    {
        $reached = array_fill_keys($starts, true);
        for ($at = 0; $at < count($starts); $at++) {
            foreach ($this->to[$starts[$at]] ?? [] as $next => $times) {
                if (! isset($reached[$next])) {
                    $reached[$next] = true;
                    $starts[] = (string) $next;
                }
            }
        }

        return $reached;
    }

    /** Each path stands in it once; three numbers a link: from and to by their places among these, and how often. */
    public function toJson(): string
    {
        $numbers = [];
        $rows = [];
        foreach ($this->to as $from => $targets) {
            foreach ($targets as $target => $times) {
                $numbers[$from] ??= count($numbers);
                $numbers[$target] ??= count($numbers);
                array_push($rows, $numbers[$from], $numbers[$target], $times);
            }
        }

        return json_encode(
            ['paths' => array_map(strval(...), array_keys($numbers)), 'links' => $rows],
            JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR,
        );
    }

    public static function fromJson(string $json): self
    {
        $fields = JsonFields::fromJson($json);
        $paths = $fields->texts('paths');
        $to = [];
        foreach (array_chunk($fields->numbers('links'), 3) as [$from, $target, $times]) {
            $to[$paths[$from]][$paths[$target]] = $times;
        }

        return new self($to);
    }
}
