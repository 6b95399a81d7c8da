<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

use Closure;

/** One proven run of a site. */
final readonly class PastRun
{
    /**
     * @param  int  $backup  number of the backup taken before it; these grow from run to run
     * @param  string|null  $place  directory that a package went to; null for where visitors come in
     * @param  (\Closure(): list<string>)|null  $brings  paths of the files that a package put there
     * @param  int|null  $undoes  number of the run that was taken back
     * @param  int|null  $fromBackup  number of the backup that was put back
     * @param  list<string>|null  $paths  of it; null for all
     */
    private function __construct(
        public int $number,
        public int $backup,
        public PastRunKind $kind,
        public ?string $place = null,
        public ?Closure $brings = null,
        public ?int $undoes = null,
        public ?int $fromBackup = null,
        public ?array $paths = null,
    ) {
    }

    /** @param  \Closure(): list<string>  $brings */
    public static function deploy(int $number, int $backup, ?string $place, Closure $brings): self
    {
        return new self($number, $backup, PastRunKind::Deploy, $place, $brings);
    }

    public static function byHand(int $number, int $backup): self
    {
        return new self($number, $backup, PastRunKind::ByHand);
    }

    public static function undo(int $number, int $backup, int $undoes): self
    {
        return new self($number, $backup, PastRunKind::Undo, undoes: $undoes);
    }

    /** @param  list<string>|null  $paths */
    public static function restore(int $number, int $backup, int $fromBackup, ?array $paths): self
    {
        return new self($number, $backup, PastRunKind::Restore, fromBackup: $fromBackup, paths: $paths);
    }
}
