<?php

declare(strict_types=1);

namespace App\Record;

use App\Models\RecordEntry;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Record\RecordChain;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\LazyCollection;

/** Checks the chain of the record from its first line to its end. */
final class RecordSeal
{
    private const AT_ONCE = 1000;

    /** So many faults are named; more say no more. */
    private const MOST = 20;

    /** The key is drawn from the application's, which is not in the database. */
    public static function chain(?string $key = null): RecordChain
    {
        $key ??= (string) config('app.key');
        $raw = str_starts_with($key, 'base64:') ? (string) base64_decode(substr($key, 7), true) : $key;

        return new RecordChain(new Secret(hash_hkdf('sha256', $raw, info: 'the record')));
    }

    /** @return array<string, mixed> what is sealed of a line: all that it says */
    public static function line(RecordEntry $entry): array
    {
        return [
            'number' => $entry->number,
            'at' => $entry->at->format('Y-m-d H:i:s.v'),
            'person' => $entry->person_id,
            'role' => $entry->role?->value,
            'address' => $entry->address,
            'client' => $entry->client_id,
            'account' => $entry->account_id,
            'site' => $entry->site_id,
            'action' => $entry->action->value,
            'sentence' => $entry->sentence,
            'facts' => $entry->facts,
        ];
    }

    /**
     * @param  string|null  $connection  to a database where it was brought back; null for the one that is worked with
     * @param  string|null  $key  of the application there; null for the one here
     * @return array{lines: int, faults: list<string>} every line is read; memory stays flat
     */
    public static function verify(?string $connection = null, #[\SensitiveParameter] ?string $key = null): array
    {
        $before = RecordChain::START;
        $number = 0;
        $faults = [];
        $keys = [$key ?? (string) config('app.key'), ...(array) config('app.previous_keys', [])];
        $chains = array_map(self::chain(...), $keys);
        foreach (self::lines($connection) as $entry) {
            $number + 1 === $entry->number || $faults[] = $number + 2 === $entry->number
                ? 'Line '.($number + 1).' is missing.'
                : 'Lines '.($number + 1).' to '.($entry->number - 1).' are missing.';
            $line = self::line($entry);
            $seals = array_map(static fn (RecordChain $chain): string => $chain->seal($before, $line), $chains);
            in_array($entry->seal, $seals, true) || $faults[] = "Line $entry->number of "
                ."{$entry->at->format('j M Y H:i:s')} is not as it was written, or does not follow the one before it.";
            [$before, $number] = [$entry->seal, $entry->number];
            if (count($faults) >= self::MOST) {
                $faults[] = 'There may be more: these are the first.';

                return ['lines' => $number, 'faults' => $faults];
            }
        }
        $end = DB::connection($connection)->table('record_ends')->where('id', 1)->first();
        $holds = $end === null ? $number === 0 : $end->number === $number && $end->seal === $before;
        $expected = $end->number ?? 'none';
        $holds || $faults[] = "The record should end with line $expected, and ends with $number.";

        return ['lines' => $number, 'faults' => $faults];
    }

    /** @return LazyCollection<int, RecordEntry> */
    private static function lines(?string $connection): LazyCollection
    {
        return RecordEntry::on($connection)
            ->withoutGlobalScopes()
            ->orderBy('number')
            ->lazyById(self::AT_ONCE, 'number');
    }
}
