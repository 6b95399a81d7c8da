<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Backups\Expiry;
use App\Models\Backup;
use App\Models\BackupRule;
use App\Text\Amount;
use Cellarium\Core\Backup\KeptBecause;
use Cellarium\Core\Backup\RetentionDecision;

final class BackupsCommand extends CellariumCommand
{
    protected $signature = 'cellarium:backups {site : the domain} {--json}';

    protected $description = 'Which backups of a site there are, and which of them stay';

    public function handle(Expiry $expiry): int
    {
        $site = $this->siteNamed((string) $this->argument('site'));
        $rule = BackupRule::forSite($site);
        $held = Expiry::held()->where('site_id', $site->id)->get()->keyBy('id');
        $rows = array_map(
            static fn (RetentionDecision $decision): array => self::row($held[$decision->backup->id], $decision),
            $expiry->decisions($site, $rule),
        );
        if ($this->wantsJson()) {
            $this->json([
                'ok' => true,
                'site' => $site->domain,
                'promise_hours' => $rule->hours,
                'promised_until' => $site->backup_promised_at?->toIso8601String(),
                'rehearsed_at' => $site->rehearsed_at?->toIso8601String(),
                'backups' => $rows,
            ]);

            return self::PROVEN;
        }
        $this->table(['Number', 'Taken', 'Holds', 'Rehearsed', 'Stays'], array_map(
            static fn (array $row): array => [
                $row['id'],
                $row['taken_at'],
                Amount::files($row['files']).', '.Amount::bytes($row['bytes']),
                $row['rehearsed_at'] ?? 'never',
                $row['because'] === [] ? 'goes' : implode(', ', array_map(
                    static fn (string $because): string => KeptBecause::from($because)->words(),
                    $row['because'],
                )),
            ],
            $rows,
        ));
        $this->components->info("Promised {$rule->every()}; kept are {$rule->keeps()}.");

        return self::PROVEN;
    }

    /**
     * @return array{
     *     id: int,
     *     taken_at: string,
     *     files: int,
     *     bytes: int,
     *     rehearsed_at: string|null,
     *     pinned_because: string|null,
     *     because: list<string>,
     * }
     */
    private static function row(Backup $backup, RetentionDecision $decision): array
    {
        return [
            'id' => $backup->id,
            'taken_at' => $decision->backup->takenAt->format(DATE_ATOM),
            'files' => $backup->files,
            'bytes' => (int) $backup->bytes,
            'rehearsed_at' => $backup->rehearsed_at?->toIso8601String(),
            'pinned_because' => $backup->pinned_because,
            'because' => array_map(static fn (KeptBecause $because): string => $because->value, $decision->because),
        ];
    }
}
