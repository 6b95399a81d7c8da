<?php

declare(strict_types=1);

namespace Cellarium\Core\Sheet;

use Cellarium\Core\Json\JsonFields;

/** A site, and what it could fall back on when the sheet was made. Times are Unix times. */
final readonly class SheetSite
{
    /**
     * @param  string  $promise  how often a backup is taken, as "every day"
     * @param  int  $backups  taken in the time the sheet is about
     * @param  int|null  $lastBackupAt  read back by then
     * @param  int|null  $rehearsedAt  when a backup was last unpacked, and its pages fetched
     * @param  bool  $isLate  whether the promise is broken as the sheet is made
     * @param  int|null  $liveProvenAt  when its pages were last fetched and compared with what was sent
     */
    public function __construct(
        public string $domain,
        public string $promise,
        public bool $isLate,
        public int $backups,
        public ?int $lastBackupAt,
        public ?int $rehearsedAt,
        public ?int $liveProvenAt,
    ) {
    }

    /** @return array<string, int|string|bool|null> */
    public function toArray(): array
    {
        return [
            'domain' => $this->domain,
            'promise' => $this->promise,
            'late' => $this->isLate,
            'backups' => $this->backups,
            'last_backup_at' => SheetTime::textOrNull($this->lastBackupAt),
            'rehearsed_at' => SheetTime::textOrNull($this->rehearsedAt),
            'live_proven_at' => SheetTime::textOrNull($this->liveProvenAt),
        ];
    }

    /** @throws \UnexpectedValueException */
    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            $fields->text('domain'),
            $fields->text('promise'),
            $fields->flag('late'),
            $fields->number('backups'),
            SheetTime::orNull($fields, 'last_backup_at'),
            SheetTime::orNull($fields, 'rehearsed_at'),
            SheetTime::orNull($fields, 'live_proven_at'),
        );
    }
}
