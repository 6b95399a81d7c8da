<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

use Cellarium\Core\Connection\Endpoint;
use Cellarium\Core\Process\PhpProgram;
use Cellarium\Core\Storage\StoreSettings;
use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\Job\JobCodec;
use RuntimeException;

/** The near end of one worker process. */
final class Worker
{
    public ?Job $job = null;

    /** @var resource */
    private $process;

    /** @var resource */
    private $input;

    /** @var resource the worker's standard output, for stream_select() */
    public readonly mixed $output;

    private string $buffer = '';

    /**
     * @param  list<resource>  $inherit  streams of a lock; held as long as any process has them open
     * @param  int|null  $bytesASecond  that it may move; null for as many as it can
     * @param  StoreSettings|null  $store  for jobs that keep, send or compare contents
     */
    public function __construct(
        public readonly int $number,
        Endpoint $endpoint,
        array $inherit,
        ?int $bytesASecond,
        ?StoreSettings $store,
    ) {
        $pipes = [];
        $descriptors = [['pipe', 'r'], ['pipe', 'w']];
        foreach ($inherit as $index => $stream) {
            $descriptors[3 + $index] = $stream;
        }
        $process = proc_open(
            [PhpProgram::path(), '-d', 'opcache.enable_cli=0', __DIR__.'/worker.php'],
            $descriptors,
            $pipes,
            null,
            ['PATH' => (string) getenv('PATH')],
        );
        if ($process === false) {
            throw new RuntimeException('A transfer worker could not be started.');
        }
        $this->process = $process;
        [$this->input, $this->output] = $pipes;
        stream_set_blocking($this->output, false);
        $this->say($endpoint->reveal() + ['bytes_a_second' => $bytesASecond, 'store' => $store?->reveal()]);
    }

    public function give(Job $job): void
    {
        $this->job = $job;
        $this->say(JobCodec::encode($job));
    }

    /**
     * Whole lines that have come; null once the worker is gone.
     *
     * @return list<string>|null
     */
    public function hear(): ?array
    {
        $chunk = fread($this->output, 1 << 20);
        if ($chunk === false || ($chunk === '' && feof($this->output))) {
            return null;
        }
        $lines = explode("\n", $this->buffer.$chunk);
        $this->buffer = array_pop($lines);

        return $lines;
    }

    public function stop(): void
    {
        if (is_resource($this->process)) {
            fclose($this->input);
            if ($this->job !== null) {
                proc_terminate($this->process, SIGKILL);
            }
            fclose($this->output);
            proc_close($this->process);
        }
    }

    /** @param  array<string, mixed>  $message */
    private function say(#[\SensitiveParameter] array $message): void
    {
        $line = json_encode($message, JSON_UNESCAPED_SLASHES | JSON_THROW_ON_ERROR)."\n";
        // A worker that died does not read; hear() notices.
        @fwrite($this->input, $line);
        fflush($this->input);
    }
}
