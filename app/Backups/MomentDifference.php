<?php

declare(strict_types=1);

namespace App\Backups;

use App\Text\Amount;
use Carbon\CarbonImmutable;

/** One file that is different at two moments. */
final readonly class MomentDifference
{
    /**
     * @param  string  $kind  added, changed or removed
     * @param  int|null  $before  bytes; null where it was not there
     * @param  int|null  $after  bytes; null where it is not there
     * @param  array{words: string, at: CarbonImmutable, page: string, kind: string}|null  $who  null for nobody here
     * @param  string|null  $when  of what nobody here did, with who could sign in
     */
    public function __construct(
        public string $path,
        public string $kind,
        public ?int $before,
        public ?int $after,
        public ?array $who,
        public ?string $when,
    ) {
    }

    public function sizes(): string
    {
        $words = static fn (?int $bytes): string => $bytes === null ? '–' : Amount::bytes($bytes);

        return "{$words($this->before)} → {$words($this->after)}";
    }

    /** What the tag says. */
    public function by(): string
    {
        return match (true) {
            $this->who !== null => $this->who['kind'],
            $this->kind === 'added' => 'came from nobody here',
            $this->kind === 'removed' => 'removed by nobody here',
            default => 'changed by nobody here',
        };
    }

    public function tone(): string
    {
        return match (true) {
            $this->who === null => $this->kind === 'added' ? 'now' : 'soon',
            $this->who['kind'] === 'deployed' => 'proven',
            $this->who['kind'] === 'not known' => 'plain',
            default => 'kept',
        };
    }

    public function words(): string
    {
        return $this->who === null
            ? (string) $this->when
            : "{$this->who['words']}, {$this->who['at']->shown('j M Y H:i')}";
    }

    /** @return array<string, int|string|null> */
    public function toArray(): array
    {
        return [
            'path' => $this->path,
            'change' => $this->kind,
            'bytes_a' => $this->before,
            'bytes_b' => $this->after,
            'by' => $this->who === null ? 'nobody' : $this->who['kind'],
            'words' => $this->words(),
        ];
    }
}
