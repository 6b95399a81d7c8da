<?php

declare(strict_types=1);

namespace App\Files;

use App\Errands\Errands;
use App\Failure\Problem;
use App\Models\Account;
use App\Models\Errand;
use App\Models\ErrandState;
use App\Models\Person;
use App\Storage\Spool;
use Cellarium\Core\Path\RemotePath;

/** One file of a server as a worker has fetched it for one person; asked for again, it is the same for a while. */
final readonly class FetchedFile
{
    /** One that was refused is told, and asked for anew after that, in seconds. */
    private const REFUSED_SECONDS = 5;

    private function __construct(public Errand $errand)
    {
    }

    /**
     * Ordered where it is not at hand; waited for a moment.
     *
     * @param  string  $for  what it is shown as; another page of the same file has another
     * @param  string  $back  page that the one that waits for it leads to
     * @param  int  $most  bytes that it may have
     * @param  bool  $isText  whether passwords may stand in it; it is then kept sealed
     * @param  int  $seconds  for which the same will do
     */
    public static function forPlace(
        Account $account,
        RemotePath $path,
        string $for,
        string $back,
        int $most,
        bool $isText,
        int $seconds,
    ): self {
        $person = (int) Person::viewer()?->id;
        $key = hash('sha256', implode("\0", [$person, $account->id, $path->toString(), $for]));
        $errand = Errand::where('fetched_for', $key)->latest('id')->first();
        $isUsed = $errand !== null && match ($errand->state) {
            ErrandState::Waiting, ErrandState::Running => true,
            ErrandState::Done => self::isWithin($errand, $seconds)
                && app(Spool::class)->file((string) ($errand->result['file'] ?? '')) !== null,
            default => self::isWithin($errand, self::REFUSED_SECONDS),
        };
        if (! $isUsed) {
            $errand = Errands::order(
                FetchFile::class,
                $back,
                $account,
                ['path' => $path->toString(), 'most' => $most, 'text' => $isText],
                $key,
            );
        }
        Errands::await($errand);

        return new self($errand);
    }

    /**
     * @return array{file: string, size: int, seen: string}|null null while it is going on
     *
     * @throws Problem where it could not be fetched
     */
    public function facts(): ?array
    {
        if (! $this->errand->state->hasEnded()) {
            return null;
        }
        if ($this->errand->state !== ErrandState::Done) {
            throw new Problem((string) $this->errand->words);
        }
        /** @var array{file: string, size: int, seen: string} $facts */
        $facts = $this->errand->result;

        return $facts;
    }

    /**
     * Of one that was kept sealed; null while it is going on.
     *
     * @throws Problem
     */
    public function text(): ?string
    {
        $facts = $this->facts();

        return $facts === null
            ? null
            : app(Spool::class)->sealed($facts['file']) ?? throw new Problem('It took too long. Look at it again.');
    }

    private static function isWithin(Errand $errand, int $seconds): bool
    {
        return abs((int) $errand->updated_at?->diffInSeconds(now())) <= $seconds;
    }
}
