<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Failure\Problem;
use App\Models\Account;
use App\Models\Client;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use App\Models\Site;
use App\Record\Record;
use Cellarium\Core\Intake\AccountList;
use Cellarium\Core\Intake\AccountRow;
use Cellarium\Core\Intake\Column;
use Cellarium\Core\Intake\Rehearsal;
use Cellarium\Core\Intake\Verdict;
use Cellarium\Core\Manifest\StartPages;
use Cellarium\Core\Storage\WholeFile;
use Illuminate\Support\Facades\Crypt;
use Illuminate\Support\Facades\DB;

/**
 * Takes over lists of accounts: kept encrypted while they are looked at, rehearsed, then taken over whole or not at
 * all.
 */
final readonly class AccountImport
{
    private const KEPT_SECONDS = 3600;

    /** @return string a name to ask for it by */
    public function keep(#[\SensitiveParameter] string $text): string
    {
        $this->forgetOld();
        $name = bin2hex(random_bytes(16));
        WholeFile::write($this->file($name), Crypt::encryptString($text));

        return $name;
    }

    /** @throws Problem when it is gone */
    public function list(string $name): AccountList
    {
        $kept = preg_match('/\A[0-9a-f]{32}\z/', $name) === 1 ? @file_get_contents($this->file($name)) : false;

        return AccountList::read(
            $kept === false
                ? throw new Problem('The list is no longer here; lists are kept for an hour. Import it again.')
                : Crypt::decryptString($kept),
        );
    }

    public function forget(string $name): void
    {
        if (preg_match('/\A[0-9a-f]{32}\z/', $name) === 1 && is_file($this->file($name))) {
            unlink($this->file($name));
        }
    }

    /** @param  array<int, Column>  $columns */
    public function rehearse(AccountList $list, array $columns): Rehearsal
    {
        $known = [];
        $domains = [];
        foreach (
            Account::with('client:id,name,group', 'sites:id,account_id,domain,document_root')->get([
                'id',
                'client_id',
                'label',
                'company',
                'host',
                'port',
                'protocol',
                'login',
                'secret',
                'address',
                'start_directory',
                'tags',
                'notes',
            ]) as $account
        ) {
            $key = AccountRow::keyOf($account->host, $account->port, $account->login);
            $known[$key] = [
                'client' => $account->client->name,
                'group' => $account->client->group,
                'label' => $account->label,
                'company' => $account->company,
                'protocol' => $account->protocol->value,
                'address' => $account->address,
                'start_directory' => $account->start_directory,
                'tags' => $account->tags,
                'notes' => $account->notes,
                'document_root' => $account->sites->pluck('document_root', 'domain')->all(),
                'password' => static fn (#[\SensitiveParameter] mixed $typed): bool => hash_equals(
                    $account->secret,
                    (string) $typed,
                ),
            ];
            foreach ($account->sites as $site) {
                $domains[$site->domain] = $key;
            }
        }

        return Rehearsal::fromList($list, $columns, $known, $domains);
    }

    /**
     * @param  array<int, Column>  $columns
     * @return array<string, int> rows by verdict
     *
     * @throws Problem with nothing taken over when a row is refused
     */
    public function takeOver(AccountList $list, array $columns): array
    {
        set_time_limit(300);

        return DB::transaction(function () use ($list, $columns): array {
            $rehearsal = $this->rehearse($list, $columns);
            if ($rehearsal->isRefused()) {
                throw new Problem(
                    "{$rehearsal->counts()[Verdict::Refused->value]} rows are refused, so nothing was imported. "
                        .'Mend them in the list and import it again.',
                );
            }
            $clients = Client::all()->keyBy('name');
            $entries = [];
            foreach ($rehearsal->rows as ['row' => $row, 'verdict' => $verdict]) {
                if ($verdict !== Verdict::Same) {
                    $entries[] = $this->write(
                        $row,
                        $verdict,
                        $clients->get((string) $row->text('client'))
                            ?? ($clients[(string) $row->text('client')] = Client::create([
                                'name' => $row->text('client'),
                                'colour' => Client::nextColour(),
                                'group' => $row->text('group') ?? '',
                            ])),
                    );
                }
            }
            Record::writeAll($entries);

            return $rehearsal->counts();
        });
    }

    /** @return RecordEntry what goes into the record */
    private function write(AccountRow $row, Verdict $verdict, Client $client): RecordEntry
    {
        $values = $row->values;
        $fresh = $verdict === Verdict::Fresh;
        $key = ['host' => $values['host'], 'port' => $values['port'], 'login' => $values['login']];
        // The rehearsal, in the same transaction, has found which are known; new ones need not be looked for.
        $account = $fresh ? new Account($key) : Account::where($key)->firstOrFail();
        $account->fill(
            array_filter(
                array_intersect_key(
                    $values,
                    array_flip(['label', 'company', 'protocol', 'address', 'start_directory', 'tags', 'notes']),
                ),
                static fn ($value): bool => $value !== '',
            ) + ['client_id' => $client->id],
        );
        if ($fresh || ($values['password'] ?? '') !== '') {
            $account->secret = (string) ($values['password'] ?? '');
            $account->bindSecrets();
        }
        $account->save();
        if (($values['group'] ?? '') !== '' && $client->group !== $values['group']) {
            $client->update(['group' => $values['group']]);
        }
        if (isset($values['domain'])) {
            $site = ($fresh ? null : Site::where('domain', $values['domain'])->first())
                ?? new Site([
                    'domain' => $values['domain'],
                    'account_id' => $account->id,
                    'base_url' => "https://{$values['domain']}",
                    'start_pages' => StartPages::USUAL,
                    'kept' => ['uploads/'],
                    'document_root' => '/',
                ]);
            $site->fill(array_filter(['document_root' => $values['document_root'] ?? null]));
            $site->isDirty('document_root') && $site->root_proven_at = null;
            $site->save();
        }

        return Record::line(
            $fresh ? RecordKind::AccountAdded : RecordKind::AccountChanged,
            ($fresh ? 'Added ' : 'Changed ')."$account->login at $account->host from a list",
            $account,
        );
    }

    private function file(string $name): string
    {
        return config('cellarium.var')."/lists/$name";
    }

    private function forgetOld(): void
    {
        foreach (glob(config('cellarium.var').'/lists/*') ?: [] as $file) {
            if ((int) @filemtime($file) < time() - self::KEPT_SECONDS) {
                @unlink($file);
            }
        }
    }
}
