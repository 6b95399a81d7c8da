<?php

declare(strict_types=1);

namespace App\Runs;

use App\Models\Deployment;
use App\Plans\PlanTotals;
use App\Storage\RunFiles;
use App\Text\Amount;
use Cellarium\Core\Deployment\JournalMark;
use Cellarium\Core\Deployment\RunStage;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\PlanFilter;

/** The files of a run that goes on: each where it has few, else those that are on their way. */
final readonly class SentFiles
{
    /** Of more, nobody reads each. */
    public const MOST = 60;

    /** @var array<string, array{subject: string, bytes: int, size: int}> by path, what each connection has in hand */
    private array $going;

    /** @var array<string, string> words of the server, by path */
    private array $refused;

    /** @var array<string, true> by path, what its address has shown */
    private array $shown;

    private function __construct(Deployment $run)
    {
        $this->going = array_column($run->progress['lanes'] ?? [], null, 'subject');
        $this->refused = array_column($run->progress['failed'] ?? [], 'words', 'subject');
        $this->shown = array_fill_keys($run->progress['shown'] ?? [], true);
    }

    /** @return list<SentFile> none in stages that have other things to show than files */
    public static function forRun(Deployment $run, RunFiles $kept): array
    {
        if (! in_array($run->stage, [RunStage::Sending, RunStage::Replacing, RunStage::Proving], true)) {
            return [];
        }
        $files = new self($run);
        if ((new PlanTotals($run->counts))->files(Change::Add, Change::Replace) > self::MOST) {
            return $files->onTheWay();
        }
        $plan = $kept->planReader($run);
        $paths = [];
        foreach ([Change::Add, Change::Replace] as $change) {
            foreach ($plan->search(new PlanFilter($change), 0, self::MOST)[0] as $item) {
                $paths[] = $item->path->toString();
            }
        }
        sort($paths, SORT_STRING);
        $journal = $kept->journal($run);

        return array_map(
            static fn (string $path): SentFile => $files->file(
                $path,
                isset($journal->noted(JournalMark::Sent)[$path]),
                isset($journal->noted(JournalMark::Renamed)[$path]),
            ),
            $paths,
        );
    }

    /** @return list<SentFile> */
    private function onTheWay(): array
    {
        return array_map(
            fn (int|string $path): SentFile => $this->file((string) $path),
            array_keys($this->refused + $this->going),
        );
    }

    private function file(string $path, bool $isSent = false, bool $isNamed = false): SentFile
    {
        $going = $this->going[$path] ?? null;

        return match (true) {
            isset($this->refused[$path]) => new SentFile($path, 'was refused', 'now'),
            isset($this->shown[$path]) => new SentFile($path, 'is there with the same bytes', 'proven'),
            $isNamed => new SentFile($path, 'is there, its name given', 'kept'),
            $isSent => new SentFile($path, 'is there', 'kept'),
            $going !== null => new SentFile(
                $path,
                'goes'.($going['size'] > 0
                    ? ', '.Amount::bytes($going['bytes']).' of '.Amount::bytes($going['size'])
                    : ''),
                'soon',
            ),
            default => new SentFile($path, 'waits', 'later'),
        };
    }
}
