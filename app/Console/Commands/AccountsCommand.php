<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Models\Account;
use App\Models\Site;
use Cellarium\Core\People\Permission;

final class AccountsCommand extends CellariumCommand
{
    protected const PERMISSION = Permission::LookAtAgency;

    protected $signature = 'cellarium:accounts {--json}';

    protected $description = 'List all accounts with their sites';

    public function handle(): int
    {
        $accounts = Account::with('client', 'sites')
            ->withCount(['ftpUsers as open_users' => static fn ($query) => $query->alive()])
            ->get()
            ->sortBy(['client.name', 'host'])
            ->values()
            ->toBase();
        if ($this->wantsJson()) {
            $this->json(
                $accounts
                    ->map(
                        static fn (Account $account): array => [
                            'id' => $account->id,
                            'client' => $account->client->name,
                            'host' => $account->host,
                            'port' => $account->port,
                            'protocol' => $account->protocol->value,
                            'login' => $account->login,
                            'sites' => $account->sites
                                ->map(
                                    static fn (Site $site): array => [
                                        'domain' => $site->domain,
                                        'document_root' => $site->document_root,
                                    ],
                                )
                                ->all(),
                            'open_ftp_users' => (int) $account->getAttribute('open_users'),
                            'space' => ['used' => $account->space_used, 'limit' => $account->space_limit],
                        ],
                    )
                    ->all(),
            );
        } else {
            $this->table(
                ['client', 'host', 'login', 'sites', 'open FTP users'],
                $accounts
                    ->map(
                        static fn (Account $account): array => [
                            $account->client->name,
                            $account->host,
                            $account->login,
                            $account->sites->pluck('domain')->join(', '),
                            (int) $account->getAttribute('open_users'),
                        ],
                    )
                    ->all(),
            );
        }

        return self::PROVEN;
    }
}
