<?php

declare(strict_types=1);

namespace App\Runs;

use App\Failure\DatabaseAway;
use App\Failure\Problem;
use App\Models\Deployment;
use Cellarium\Core\Backup\Backup as TakenBackup;
use Cellarium\Core\Deployment\AfterFailedProof;
use Cellarium\Core\Deployment\PageProof;
use Cellarium\Core\Deployment\RunListener;
use Cellarium\Core\Deployment\RunStage;
use Cellarium\Core\Outage\OutageWatch;
use Cellarium\Core\Pace\Pace;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Transfer\Cancelled;
use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\SpeedHistory;
use Cellarium\Core\Transfer\SpeedMeter;
use Cellarium\Core\Transfer\TransferFailed;
use Cellarium\Core\Transfer\TransferListener;

/** Writes how a run goes on where the page looks for it, at most a few times a second. */
final class Progress implements RunListener, TransferListener
{
    private const SECONDS_BETWEEN = 0.4;

    /** While a person is waited for. */
    private const MICROSECONDS_BETWEEN_LOOKS = 300_000;

    private RunStage $stage = RunStage::Surveying;

    private int $files = 0;

    private int $filesDone = 0;

    private int $bytes = 0;

    private int $bytesDone = 0;

    /** @var array<int, array{string, int, int}> subject, bytes, size; by number of the connection */
    private array $connections = [];

    /** Bytes, for the speeds. */
    private SpeedMeter $meter;

    /** Bytes and a share for each file, for what is done and left: many small files are slow by their number. */
    private SpeedMeter $work;

    /** @var list<string> paths whose addresses showed the same bytes, as many as are told one by one */
    private array $shown = [];

    private float $written = 0.0;

    private float $stageBegan;

    /** Of what is moved now, for the drawing. */
    private SpeedHistory $history;

    /** @var list<array{subject: string, words: string}> what could not be sent and waits for a person */
    private array $failed = [];

    /** @var array<string, array{files: int, bytes: int, seconds: float}> what each stage moved, and how long it took */
    private array $timings = [];

    /**
     * @param  \Closure(TakenBackup): void  $backedUp
     * @param  (\Closure(array<string, mixed>): void)|null  $hear  is told the same as is written
     * @param  OutageWatch|null  $watch  asks for the site as soon as visitors may see a change
     */
    public function __construct(
        private readonly Deployment $deployment,
        private readonly \Closure $backedUp,
        private readonly ?\Closure $hear = null,
        private readonly ?OutageWatch $watch = null,
    ) {
        $this->meter = new SpeedMeter(hrtime(true) / 1e9, 0);
        $this->work = new SpeedMeter(hrtime(true) / 1e9, 0);
        $this->stageBegan = hrtime(true) / 1e9;
        $this->history = new SpeedHistory(hrtime(true) / 1e9);
    }

    /** @return array<string, array{files: int, bytes: int, seconds: float}> by stage, what is going on included */
    public function timings(): array
    {
        return $this->timings + [$this->stage->value => [
            'files' => $this->filesDone,
            'bytes' => $this->bytesDone,
            'seconds' => round(hrtime(true) / 1e9 - $this->stageBegan, 3),
        ]];
    }

    public function stage(RunStage $stage, int $files, int $bytes): void
    {
        // The last moment of the stage that ends here.
        $stage === RunStage::PuttingBack || DatabaseAway::tolerate($this->endIfCancelled(...));
        $stage->isUntouched() || $this->watch?->begin();
        $this->timings = $this->timings();
        $this->stageBegan = hrtime(true) / 1e9;
        [$this->stage, $this->files, $this->bytes, $this->filesDone, $this->bytesDone] = [$stage, $files, $bytes, 0, 0];
        $this->connections = $this->shown = [];
        $this->history = new SpeedHistory(hrtime(true) / 1e9);
        $this->meter = new SpeedMeter(hrtime(true) / 1e9, $bytes);
        $this->work = new SpeedMeter(hrtime(true) / 1e9, $bytes + Pace::BYTES_A_FILE * $files);
        $this->write(true);
    }

    public function failed(array $failures): bool
    {
        $seconds = (int) config('cellarium.decision_seconds');
        if ($this->hear !== null || $seconds === 0) {
            return false; // Nobody is asked on a console: it goes back and says what happened.
        }
        $this->failed = array_map(static fn (TransferFailed $failed): array => [
            'subject' => $failed->job->subject,
            'words' => Problem::words($failed->failure),
        ], $failures);

        return $this->decided($seconds)?->tries_again === true;
    }

    public function proofFailed(array $proofs): AfterFailedProof
    {
        $minutes = (int) $this->deployment->site->proof_decides;
        if ($this->hear !== null || $minutes === 0) {
            return AfterFailedProof::GoBack;
        }
        $failed = array_filter($proofs, static fn (PageProof $proof): bool => ! $proof->holds());
        $this->failed = array_values(array_map(static fn (PageProof $proof): array => [
            'subject' => (string) parse_url($proof->url, PHP_URL_PATH),
            'words' => $proof->sentence(),
            'mend' => $proof->mend === null ? null : sprintf('%s to %04o', $proof->mend->path, $proof->mend->mode),
        ], $failed));
        $decided = $this->decided(60 * $minutes);

        return match (true) {
            $decided?->tries_again !== true => AfterFailedProof::GoBack,
            $decided->mends => AfterFailedProof::MendAndProve,
            default => AfterFailedProof::ProveAgain,
        };
    }

    /** Waits for a person to say that it is tried again, or stopped; null where nobody did in time. */
    private function decided(int $seconds): ?Deployment
    {
        $until = hrtime(true) / 1e9 + $seconds;
        $decided = null;
        DatabaseAway::tolerate(function () use ($seconds): void {
            $this->deployment->update([
                'decide_until' => now()->addSeconds($seconds),
                'tries_again' => false,
                'mends' => false,
            ]);
        });
        while ($decided === null && hrtime(true) / 1e9 < $until) {
            $this->write(true);
            usleep(self::MICROSECONDS_BETWEEN_LOOKS);
            DatabaseAway::tolerate(function () use (&$decided): void {
                $decided = Deployment::where('id', $this->deployment->id)
                    ->where(static fn ($query) => $query->where('tries_again', true)->orWhereNotNull('cancelled_at'))
                    ->first();
            });
        }
        $this->failed = [];
        DatabaseAway::tolerate(function (): void {
            $this->deployment->update(['decide_until' => null, 'tries_again' => false, 'mends' => false]);
        });
        $this->write(true);

        return $decided;
    }

    public function moved(string $subject, int $bytes): void
    {
        $this->filesDone++;
        $this->bytesDone += $bytes;
        $this->write(false);
    }

    public function shown(string $path): void
    {
        count($this->shown) >= SentFiles::MOST || $this->shown[] = $path;
    }

    public function backedUp(TakenBackup $backup): void
    {
        ($this->backedUp)($backup);
    }

    public function planned(Plan $plan): void
    {
        DatabaseAway::tolerate(function () use ($plan): void {
            $this->deployment->update(['counts' => $plan->counts()]);
        });
    }

    public function connection(int $number, ?Job $job, int $bytes): void
    {
        if ($job === null) {
            unset($this->connections[$number]);
        } else {
            $subject = $job->subject === '' ? $job->path->toString() : $job->subject;
            $this->connections[$number] = [$subject, $bytes, $job->size];
        }
    }

    public function beat(): void
    {
        $this->write(false) && $this->waitWhilePaused();
    }

    /** What is in hand is finished by the workers; nothing new is given to them meanwhile. */
    private function waitWhilePaused(): void
    {
        while ($this->canStand() && $this->isPaused()) {
            usleep(self::MICROSECONDS_BETWEEN_LOOKS);
            DatabaseAway::tolerate($this->endIfCancelled(...));
        }
    }

    private function isPaused(): bool
    {
        $paused = false;
        DatabaseAway::tolerate(function () use (&$paused): void {
            $paused = Deployment::where('id', $this->deployment->id)->whereNotNull('paused_at')->exists();
        });

        return $paused;
    }

    /** Whether visitors see the old site still, so that it may stand for as long as anybody likes. */
    private function canStand(): bool
    {
        return $this->stage->canStand();
    }

    /** Until names are given; after that only the proof is left, and on the way back there is nothing to cancel. */
    private function endIfCancelled(): void
    {
        $asked = Deployment::where('id', $this->deployment->id)->whereNotNull('cancelled_at');
        if ($this->stage->isUntouched() && $asked->exists()) {
            throw Cancelled::byAPerson();
        }
    }

    /** @return bool whether it was time for it */
    private function write(bool $atOnce): bool
    {
        $now = hrtime(true) / 1e9;
        if (! $atOnce && $now - $this->written < self::SECONDS_BETWEEN) {
            return false;
        }
        $this->written = $now;
        $inHand = array_sum(array_column($this->connections, 1));
        $this->meter->at($now, min($this->bytes, $this->bytesDone + $inHand));
        $this->history->at($now, min($this->bytes, $this->bytesDone + $inHand));
        $this->work->at(
            $now,
            min($this->bytes, $this->bytesDone + $inHand) + Pace::BYTES_A_FILE * min($this->files, $this->filesDone),
        );
        ksort($this->connections);
        $progress = [
            'files' => $this->files,
            'files_done' => $this->filesDone,
            'bytes' => $this->bytes,
            'bytes_done' => min($this->bytes, $this->bytesDone + $inHand),
            'share' => $this->files === 0 ? null : $this->work->share(),
            'now' => $this->meter->now(),
            'average' => $this->meter->average(),
            'left' => $this->work->left(),
            'stage_seconds' => round($now - $this->stageBegan, 1),
            'speeds' => $this->history->speeds(),
            'speeds_each' => $this->history->each(),
            'failed' => $this->failed,
            'shown' => $this->shown,
            'lanes' => array_map(
                static fn (array $file): array => ['subject' => $file[0], 'bytes' => $file[1], 'size' => $file[2]],
                $this->connections,
            ),
        ];
        DatabaseAway::tolerate(function () use ($progress): void {
            $this->deployment->update(['stage' => $this->stage, 'progress' => $progress]);
            $this->endIfCancelled();
        });
        if ($this->hear !== null) {
            ($this->hear)(['stage' => $this->stage->value] + $progress);
        }

        return true;
    }
}
