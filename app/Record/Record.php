<?php

declare(strict_types=1);

namespace App\Record;

use App\Models\Account;
use App\Models\Client;
use App\Models\Person;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use App\Models\Site;
use Cellarium\Core\Record\RecordChain;
use Cellarium\Core\Storage\RecordEnd;
use Illuminate\Support\Facades\Context;
use Illuminate\Support\Facades\DB;

/**
 * Writes who did what, when, to which account, from where. Sentences and facts never hold a secret. Each line is sealed
 * over the one before, see RecordChain; of two that are written at once, one waits.
 *
 * In a transaction it is written last: until that ends, nobody else writes.
 */
final class Record
{
    /** Under which name the address of whoever asked goes along with what workers do for them. */
    public const ADDRESS = 'address';

    private const AT_ONCE = 500;

    /** Where the database breaks a deadlock by letting one of two wait, that one tries again. */
    private const TRIES = 5;

    /** @param  array<string, mixed>  $facts */
    public static function write(
        RecordKind $kind,
        string $sentence,
        Account|Client|Site|null $about = null,
        array $facts = [],
        ?Person $person = null,
    ): void {
        self::writeAll([self::line(...func_get_args())]);
    }

    /**
     * A line that is not written yet.
     *
     * @param  array<string, mixed>  $facts
     */
    public static function line(
        RecordKind $kind,
        string $sentence,
        Account|Client|Site|null $about = null,
        array $facts = [],
        ?Person $person = null,
    ): RecordEntry {
        $site = $about instanceof Site ? $about : null;
        $account = $about instanceof Account ? $about : $site?->account;
        $person ??= Person::viewer();

        return new RecordEntry([
            'at' => now(),
            'person_id' => $person?->id,
            'role' => $person?->role,
            'address' => Context::get(self::ADDRESS),
            'client_id' => $about instanceof Client ? $about->id : $site->client_id ?? $account?->client_id,
            'account_id' => $account?->id,
            'site_id' => $site?->id,
            'action' => $kind,
            'sentence' => mb_substr($sentence, 0, 1000),
            'facts' => $facts === [] ? null : $facts,
        ]);
    }

    /** @param  list<RecordEntry>  $entries  in the order they happened */
    public static function writeAll(array $entries): void
    {
        DB::transaction(static fn () => self::append($entries), self::TRIES);
    }

    /** @param  list<RecordEntry>  $entries */
    private static function append(array $entries): void
    {
        $end = DB::table('record_ends')->where('id', 1)->lockForUpdate()->first();
        if ($end === null) {
            DB::table('record_ends')->insertOrIgnore(['id' => 1, 'number' => 0, 'seal' => RecordChain::START]);
            $end = DB::table('record_ends')->where('id', 1)->lockForUpdate()->first();
        }
        $chain = RecordSeal::chain();
        [$number, $seal] = [$end->number, $end->seal];
        foreach ($entries as $entry) {
            $entry->number = ++$number;
            $entry->seal = $seal = $chain->seal($seal, RecordSeal::line($entry));
        }
        foreach (array_chunk($entries, self::AT_ONCE) as $some) {
            RecordEntry::insert(array_map(static fn (RecordEntry $entry): array => $entry->getAttributes(), $some));
        }
        DB::table('record_ends')->where('id', 1)->update(['number' => $number, 'seal' => $seal]);
        // Beside the lists, once it is written for good: this is how an earlier database is told from this one.
        DB::afterCommit(static fn () => (new RecordEnd($number, $seal))->noteIn(config('cellarium.var').'/backups'));
    }
}
