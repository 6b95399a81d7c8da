<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Account;
use App\Models\Client;
use App\Models\FtpUser;
use App\Models\Package;
use App\Models\Site;
use App\People\Access;
use Illuminate\Contracts\View\View;
use Illuminate\Http\Request;

final class FinderController
{
    private const EACH = 6;

    public function __invoke(Request $request, Access $access): View
    {
        $words = trim(mb_substr((string) $request->query('q', ''), 0, 100));
        $like = '%'.addcslashes($words, '%_\\').'%';
        $everything = $access->leads('/accounts');
        $found = match (true) {
            $words !== '' => $this->sites($like),
            $everything => $this->recent(),
            default => $this->sites('%'),
        };
        if ($words !== '' && $everything) {
            foreach (
                Account::with('client')
                    ->where('host', 'like', $like)
                    ->orWhere('login', 'like', $like)
                    ->orWhere('label', 'like', $like)
                    ->orderBy('host')
                    ->limit(self::EACH)
                    ->get() as $account
            ) {
                $found[] = [
                    'kind' => 'account',
                    'name' => "$account->login on $account->host",
                    'note' => $account->client->name,
                    'url' => "/accounts/$account->id",
                ];
            }
            foreach (
                FtpUser::with('account.client')
                    ->alive()
                    ->where('login', 'like', $like)
                    ->orderBy('login')
                    ->limit(self::EACH)
                    ->get() as $user
            ) {
                $found[] = [
                    'kind' => 'FTP user',
                    'name' => $user->login,
                    'note' => $user->account->client->name,
                    'url' => "/ftp-users/$user->id",
                ];
            }
            $clients = Client::with('accounts')
                ->where('name', 'like', $like)
                ->orderBy('name')
                ->limit(self::EACH)
                ->get();
            foreach ($clients as $client) {
                foreach ($client->accounts->take(2) as $account) {
                    $found[] = [
                        'kind' => 'client',
                        'name' => $client->name,
                        'note' => $account->host,
                        'url' => "/accounts/$account->id",
                    ];
                }
            }
            $packages = Package::kept()->where('name', 'like', $like)->latest('id')->limit(self::EACH)->get();
            foreach ($packages as $package) {
                $found[] = [
                    'kind' => 'package',
                    'name' => $package->title(),
                    'note' => $package->file_name,
                    'url' => "/packages/$package->id",
                ];
            }
        }

        return view('parts.found', ['found' => $found, 'words' => $words]);
    }

    /** @return list<array<string, mixed>> */
    private function sites(string $like): array
    {
        return Site::with('client', 'account.client')
            ->where('domain', 'like', $like)
            ->orderBy('domain')
            ->limit(self::EACH)
            ->get()
            ->map(
                static fn (Site $site): array => [
                    'kind' => 'site',
                    'name' => $site->domain,
                    'note' => $site->owner()->name,
                    'url' => "/sites/$site->id",
                ],
            )
            ->all();
    }

    /** @return list<array<string, mixed>> the accounts that were looked at last, to be reached again in one action */
    private function recent(): array
    {
        return Account::with('client')
            ->whereNotNull('used_at')
            ->latest('used_at')
            ->limit(self::EACH)
            ->get(['id', 'client_id', 'label', 'host', 'login', 'used_at'])
            ->map(
                static fn (Account $account): array => [
                    'kind' => 'recent',
                    'name' => $account->client->name,
                    'note' => $account->title(),
                    'url' => "/accounts/$account->id",
                    'connect' => "/accounts/$account->id/connect",
                ],
            )
            ->all();
    }
}
