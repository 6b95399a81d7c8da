<?php

declare(strict_types=1);

namespace App\Runs;

use App\Models\Deployment;
use App\Text\Amount;
use Cellarium\Core\Deployment\RunStage;
use Cellarium\Core\Words\Count;

/** The progress of a run, in the words and lengths that a page shows. */
final readonly class RunProgress
{
    /** Width of the drawn meter, and of the line of speed; the height of that. */
    private const WIDTH = 300;

    private const HEIGHT = 40;

    /** So many times as long is slower than usual. */
    private const SLOWER = 1.6;

    /** @var array<string, mixed> as Progress writes it down */
    private array $facts;

    /** @param  float|null  $usual  seconds that all of this stage mostly takes in this account; null where not known */
    public function __construct(private Deployment $deployment, private ?float $usual = null)
    {
        $this->facts = $deployment->progress ?? [];
    }

    /** In percent; null where the whole is not known yet. */
    public function percent(): ?int
    {
        return $this->facts['share'] === null ? null : (int) round($this->facts['share'] * 100);
    }

    /** @return array<string, string> how much is there and when it will be ready, term => words */
    public function pairs(): array
    {
        $pairs = [];
        if ($this->facts['files'] > 1) {
            $goes = count($this->facts['lanes']);
            $waits = $this->facts['files'] - $this->facts['files_done'] - $goes;
            $pairs[$this->done()] = number_format(
                $this->facts['files_done'],
            ).' of '.number_format($this->facts['files'])
                .($goes === 0 ? '' : ', '.Count::words($goes, 'goes', 'go'))
                .($goes === 0 || $waits <= 0 ? '' : ', '.Count::words($waits, 'waits', 'wait'));
        }
        if ($this->facts['bytes'] > 0) {
            $pairs['Bytes'] = Amount::bytes($this->facts['bytes_done']).' of '.Amount::bytes($this->facts['bytes']);
        }
        $left = $this->facts['share'] === null ? null : $this->facts['left'];
        if ($left !== null) {
            $pairs['Ready'] = 'about '.now()->addSeconds((int) ceil($left))->shown('H:i').$this->pace((float) $left);
        }

        return $pairs;
    }

    /** The word for files that this stage is done with. */
    private function done(): string
    {
        return match ($this->deployment->stage) {
            RunStage::Replacing => 'Named',
            RunStage::Proving => 'Answered',
            default => 'There',
        };
    }

    /** @return array<string, string> what is behind that, term => words */
    public function details(): array
    {
        return ($this->facts['bytes'] > 0 ? ['Speed' => $this->speed()] : []) + [
            'Elapsed' => Amount::seconds($this->deployment->started_at?->diffInSeconds(now())),
        ];
    }

    /** Beside what the last runs in this account took; "" where that is not known. */
    private function pace(float $left): string
    {
        $all = (float) ($this->facts['stage_seconds'] ?? 0.0) + $left;

        return match (true) {
            $this->usual === null || $this->usual < 1.0 => '',
            $all > self::SLOWER * $this->usual => ', slower than usual here',
            $all < $this->usual / self::SLOWER => ', quicker than usual here',
            default => ', as quick as usual here',
        };
    }

    private function speed(): string
    {
        $speed = static fn (float|int|null $now): ?string => $now === null ? null : Amount::bytes((int) $now).'/s';
        $average = $speed($this->facts['average']);

        return ($this->facts['now'] === null ? '…' : $speed($this->facts['now']).' now')
            .($average === null ? '' : ", $average on average");
    }

    /** Speed over time as points of a line, WIDTH by HEIGHT; "" where there is none to draw yet. */
    public function line(): string
    {
        $speeds = $this->facts['speeds'] ?? [];
        if (count($speeds) < 3) {
            return '';
        }
        $step = self::WIDTH / (count($speeds) - 1);
        $scale = (self::HEIGHT - 2) / max(1, ...$speeds);

        return implode(' ', array_map(
            static fn (int $at, int $speed): string => round($at * $step, 1).','
                .round(self::HEIGHT - 1 - $speed * $scale, 1),
            array_keys($speeds),
            $speeds,
        ));
    }

    /** What the line shows, in words. */
    public function lineInWords(): string
    {
        $speeds = $this->facts['speeds'];

        return 'Speed over the last '.Amount::seconds(count($speeds) * $this->facts['speeds_each']).', at most '
            .Amount::bytes(max($speeds)).'/s';
    }

    /**
     * @return list<array{subject: string, words: string, mend?: string|null}> what could not be sent or proven, with
     *     the words of the server
     */
    public function failed(): array
    {
        return $this->facts['failed'] ?? [];
    }

    /** @return list<string> modes that would let the web server in, each "css to 0755" */
    public function mends(): array
    {
        return array_values(array_unique(array_filter(array_column($this->failed(), 'mend'))));
    }

    /** @return list<array{subject: string, words: string}> what each connection has in hand */
    public function connections(): array
    {
        return array_map(static fn (array $file): array => [
            'subject' => $file['subject'],
            'words' => $file['size'] > 0 ? Amount::bytes($file['bytes']).' of '.Amount::bytes($file['size']) : '',
        ], array_values($this->facts['lanes']));
    }
}
