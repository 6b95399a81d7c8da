<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Backups\Expiry;
use App\Backups\StoreFigures;
use App\Models\Site;
use App\Text\Amount;
use App\Watch\Cleaner;
use Cellarium\Core\Backup\RetentionDecision;
use Cellarium\Core\Storage\TooMuchToSweep;

final class ExpireCommand extends CellariumCommand
{
    protected const BY_ITSELF = true;

    protected $signature = 'cellarium:expire {--dry-run : say what would go, and touch nothing} {--json}';

    protected $description = 'Let go of backups that no rule keeps, and free what they alone held';

    public function handle(Expiry $expiry, Cleaner $cleaner): int
    {
        $due = $expiry->due();
        $room = $cleaner->freedWithout($expiry->namesDue());
        $rows = [];
        $domains = Site::whereIn('id', array_keys($due))->pluck('domain', 'id');
        foreach ($due as $number => $decisions) {
            $rows[] = [
                'site' => $domains[$number],
                'backups' => array_map(
                    static fn (RetentionDecision $decision): int => $decision->backup->id,
                    $decisions,
                ),
                'taken' => array_map(
                    static fn (RetentionDecision $decision): string => $decision->backup->takenAt->format(DATE_ATOM),
                    $decisions,
                ),
            ];
        }
        $count = array_sum(array_map(static fn (array $row): int => count($row['backups']), $rows));
        $isDry = $this->option('dry-run') === true;
        $gone = $isDry ? 0 : $expiry->carryOut();
        $waits = null;
        try {
            $cleaned = $isDry ? null : $cleaner->clean();
        } catch (TooMuchToSweep $much) {
            $cleaned = null;
            $waits = $much->getMessage(); // It stands on Today until a person has said that it may go.
        }
        StoreFigures::noteFrees($isDry ? $room : 0);
        if ($this->wantsJson()) {
            $this->json([
                'ok' => true,
                'dry_run' => $isDry,
                'due' => $rows,
                'would_free_bytes' => $room,
                'let_go' => $gone,
                'aside_bytes' => $cleaned->swept->asideBytes ?? 0,
                'waits' => $waits,
            ]);

            return self::PROVEN;
        }
        foreach ($isDry ? $rows : [] as $row) {
            foreach ($row['backups'] as $index => $backup) {
                $this->line("{$row['site']}  backup $backup  taken {$row['taken'][$index]}");
            }
        }
        $this->components->info(match (true) {
            $count === 0 => 'No backup has to go.',
            $isDry => "$count backups would go, ".Amount::bytes($room).' would be freed. Nothing was touched.',
            $waits !== null => "$gone backups let go of. $waits",
            default => "$gone backups let go of, ".Amount::bytes($cleaned->swept->asideBytes ?? 0)
                .' moved aside for a week; '.Amount::bytes($room).' were expected.',
        });

        return self::PROVEN;
    }
}
