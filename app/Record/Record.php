<?php

declare(strict_types=1);

namespace App\Record;

use App\Models\Account;
use App\Models\Client;
use App\Models\Person;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use App\Models\Site;
use Illuminate\Support\Facades\Auth;

/** Writes who did what, when, to which account. Sentences and facts never hold a secret. */
final class Record
{
    /** @param  array<string, mixed>  $facts */
    public static function write(
        RecordKind $kind,
        string $sentence,
        Account|Client|Site|null $about = null,
        array $facts = [],
        ?Person $person = null,
    ): void {
        $site = $about instanceof Site ? $about : null;
        $account = $about instanceof Account ? $about : $site?->account;
        $person ??= Auth::user() instanceof Person ? Auth::user() : null;
        RecordEntry::create([
            'at' => now(),
            'person_id' => $person?->id,
            'client_id' => $about instanceof Client ? $about->id : $account?->client_id,
            'account_id' => $account?->id,
            'site_id' => $site?->id,
            'action' => $kind,
            'sentence' => mb_substr($sentence, 0, 1000),
            'facts' => $facts === [] ? null : $facts,
        ]);
    }
}
