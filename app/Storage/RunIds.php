<?php

declare(strict_types=1);

namespace App\Storage;

use App\Models\Backup;
use App\Models\ChangeByHand;
use App\Models\Deployment;
use Cellarium\Core\Deployment\RunEnd;

/**
 * The names of runs in the files they lay down on servers: a deployment's number, and which Cellarium it belongs to.
 */
final class RunIds
{
    /** Of the small file that a ladder puts up and takes away. */
    private const PROBE = 'probe';

    /** Seconds after which a ladder's file is certainly left over. */
    private const PROBE_SECONDS = 600;

    public static function forDeployment(int $deployment): string
    {
        return base_convert((string) $deployment, 10, 36).self::mark($deployment);
    }

    /** Of a backup by itself, which lays down one archive where its host packs. */
    public static function ofBackup(int $backup): string
    {
        return 'backup'.base_convert((string) $backup, 10, 36).self::mark($backup);
    }

    /**
     * Whether a backup of this Cellarium that is long over, or the restoring of a database that began with it, has laid
     * down what has the name of that run.
     */
    public static function isOfBackupLongOver(string $run): bool
    {
        $id = preg_match('/\Abackup([0-9a-z]+)[0-9a-f]{4}[rn]*\z/', $run, $match) === 1
            ? (int) base_convert($match[1], 36, 10)
            : 0;

        return str_starts_with($run, self::ofBackup($id))
            && Backup::whereKey($id)->where('created_at', '<', now()->subDay())->exists();
    }

    /** Of a change by hand, whose temporary files nobody else takes away. */
    public static function ofChange(ChangeByHand $change): string
    {
        return 'change'.base_convert((string) $change->id, 10, 36).self::mark($change->id);
    }

    public static function ofProbe(): string
    {
        return self::PROBE.base_convert((string) time(), 10, 36).substr(bin2hex(random_bytes(4)), 0, 6);
    }

    /** How the run of that name ended; null for one that has not, and for one that this Cellarium has not begun. */
    public static function ended(string $run): ?RunEnd
    {
        $number = (int) base_convert(substr($run, 0, -4), 36, 10);

        return strlen($run) < 5 || self::forDeployment($number) !== $run
            ? null
            : RunEnd::tryFrom(Deployment::find($number)->state->value ?? '');
    }

    /** Whether the run of that name is going on; null for one that this Cellarium has not begun. */
    public static function isGoing(string $run): ?bool
    {
        if (preg_match('/\A'.self::PROBE.'([0-9a-z]{6})[0-9a-f]{6}\z/', $run, $match) === 1) {
            return (int) base_convert($match[1], 36, 10) > time() - self::PROBE_SECONDS ? null : false;
        }
        $number = (int) base_convert(substr($run, 0, -4), 36, 10);
        if (strlen($run) < 5 || self::forDeployment($number) !== $run) {
            return null;
        }

        return Deployment::find($number)?->isGoing();
    }

    private static function mark(int $deployment): string
    {
        return substr(hash('crc32b', (string) config('app.key').$deployment), 0, 4);
    }
}
