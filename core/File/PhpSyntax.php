<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

/** Asks PHP whether it understands a program, in a process of its own that reads and does not run it. */
final readonly class PhpSyntax
{
    private const SECONDS = 5.0;

    /** @param  string  $php  the command line PHP to ask */
    public function __construct(private string $php = PHP_BINARY)
    {
    }

    /**
     * @return list<TextMistake>
     *
     * @throws \RuntimeException when it cannot be asked
     */
    public function mistakes(string $text): array
    {
        $file = tempnam(sys_get_temp_dir(), 'syntax');
        if ($file === false || file_put_contents($file, $text) !== strlen($text)) {
            throw new \RuntimeException('There is no room for a temporary file.');
        }
        try {
            $said = $this->asked($file);
        } finally {
            unlink($file);
        }

        $error = '/^(?:PHP )?(?:Parse|Fatal|Compile) error:\s+(.+) in .+ on line (\d+)$/m';

        return preg_match($error, $said, $match) === 1
            ? [new TextMistake((int) $match[2], $match[1])]
            : [];
    }

    private function asked(string $file): string
    {
        // Without any settings of this machine: no extension, nothing that is loaded in front.
        $process = proc_open(
            [
                $this->php,
                '-n',
                '-d',
                'display_errors=1',
                '-d',
                'log_errors=0',
                '-l',
                $file,
            ],
            [['file', '/dev/null', 'r'], ['pipe', 'w'], ['file', '/dev/null', 'w']],
            $pipes,
        );
        if ($process === false) {
            throw new \RuntimeException("$this->php could not be started.");
        }
        stream_set_blocking($pipes[1], false);
        $said = '';
        $until = hrtime(true) / 1e9 + self::SECONDS;
        while (! feof($pipes[1]) && hrtime(true) / 1e9 < $until) {
            [$ready, $none] = [[$pipes[1]], null];
            @stream_select($ready, $none, $none, 0, 200_000);
            $said .= (string) fread($pipes[1], 8192);
        }
        proc_terminate($process);
        fclose($pipes[1]);
        proc_close($process);

        return $said;
    }
}
