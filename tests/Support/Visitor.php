<?php

declare(strict_types=1);

namespace Tests\Support;

use RuntimeException;

/** Somebody who looks at every page of a site and all that belongs to it, 50 times a second; a process of its own. */
final class Visitor
{
    /** @var resource */
    private $process;

    /** @var resource */
    private $input;

    /** @var resource */
    private $output;

    /** @param  list<string>  $pages  paths */
    public function __construct(int $port, array $pages)
    {
        $process = proc_open(
            [PHP_BINARY, __DIR__.'/visit.php', "http://127.0.0.1:$port", implode(',', $pages)],
            [['pipe', 'r'], ['pipe', 'w']],
            $pipes,
        );
        $this->process = $process === false ? throw new RuntimeException('Nobody came.') : $process;
        [$this->input, $this->output] = $pipes;
        fgets($this->output);
    }

    /** @return list<array{int, string, float, float, int, string}> see visit.php */
    public function leave(): array
    {
        fclose($this->input);
        $answers = json_decode((string) stream_get_contents($this->output), true);
        fclose($this->output);
        proc_close($this->process);

        return $answers;
    }
}
