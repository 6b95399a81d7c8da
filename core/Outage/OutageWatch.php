<?php

declare(strict_types=1);

namespace Cellarium\Core\Outage;

use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Process\PhpProgram;

/**
 * Asks for an address again and again, from a process of its own, while something is replaced behind it.
 *
 * Its questions are few, ten a second at first and four a second after a while, so that hosts that count them have no
 * reason to object. It asks at least before and after.
 */
final class OutageWatch
{
    /** One answer takes no longer; what takes longer is ended. */
    private const ANSWER_SECONDS = 8;

    /** @var resource|null */
    private $process;

    /** @var resource|null */
    private $input;

    /** @var resource|null */
    private $output;

    /** @var list<ProbeResult> */
    private array $answers = [];

    /**
     * @param  string|null  $at  IP address to ask, where the name does not lead there
     * @param  string|null  $authorities  file of certificates, PEM; null for those of the system
     */
    public function __construct(
        private readonly string $url,
        private readonly ?string $at,
        private readonly ?string $authorities,
    ) {
    }

    /** Returns once the first answer has come; a second call does nothing. */
    public function begin(): void
    {
        if ($this->process !== null) {
            return;
        }
        $pipes = [];
        $process = proc_open(
            [PhpProgram::path(), '-d', 'opcache.enable_cli=0', __DIR__.'/watch.php'],
            [['pipe', 'r'], ['pipe', 'w'], ['file', '/dev/null', 'w']],
            $pipes,
            null,
            ['PATH' => (string) getenv('PATH')],
        );
        if ($process === false) {
            return; // Nobody asked, and end() says so.
        }
        [$this->process, $this->input, $this->output] = [$process, ...$pipes];
        $say = ['url' => $this->url, 'at' => $this->at, 'authorities' => $this->authorities];
        @fwrite($this->input, json_encode($say, JSON_UNESCAPED_SLASHES | JSON_THROW_ON_ERROR)."\n");
        $this->isSilent() || $this->take((string) fgets($this->output));
    }

    /** Ends the asking; null where nothing was asked. */
    public function end(): ?Outage
    {
        if ($this->process === null || $this->input === null || $this->output === null) {
            return $this->answers === [] ? null : Outage::fromAnswers($this->answers);
        }
        fclose($this->input);
        // It asks once more, then writes all at once.
        $this->isSilent() && proc_terminate($this->process, SIGKILL);
        $rest = (string) stream_get_contents($this->output);
        array_map($this->take(...), explode("\n", rtrim($rest)));
        fclose($this->output);
        $isWhole = proc_close($this->process) === 0;
        [$this->process, $this->input, $this->output] = [null, null, null];

        return $this->answers === [] ? null : Outage::fromAnswers($this->answers, $isWhole);
    }

    public function __destruct()
    {
        $this->end();
    }

    private function isSilent(): bool
    {
        $read = $this->output === null ? [] : [$this->output];
        $none = null;

        return $read === [] || (int) stream_select($read, $none, $none, self::ANSWER_SECONDS) === 0;
    }

    private function take(string $line): void
    {
        trim($line) === '' || $this->answers[] = ProbeResult::fromFields(JsonFields::fromJson($line));
    }
}
