<?php

declare(strict_types=1);

namespace Tests\Support\Builder;

use App\Models\Account;
use App\Models\Client;
use Cellarium\Core\Connection\Protocol;

/** An account as a test needs it: `AccountBuilder::anAccount()->at('a.example')->withSite('dive.example')->build()`. */
final class AccountBuilder
{
    /** @var array<string, mixed> */
    private array $columns = [
        'host' => 'ftp.host.example',
        'port' => 21,
        'protocol' => Protocol::FtpsExplicit,
        'login' => 'login',
        'secret' => 'a-secret-for-tests',
    ];

    /** @var array<string, string> document root by domain */
    private array $sites = [];

    private Client|string $client = 'A Client';

    private string $group = '';

    public static function anAccount(): self
    {
        return new self;
    }

    /** @param  Client|string  $client  one that is there, or the name of a new one */
    public function of(Client|string $client, string $group = ''): self
    {
        [$this->client, $this->group] = [$client, $group];

        return $this;
    }

    public function at(string $host): self
    {
        return $this->with(['host' => $host]);
    }

    public function as(string $login): self
    {
        return $this->with(['login' => $login]);
    }

    public function over(Protocol $protocol): self
    {
        return $this->with(['protocol' => $protocol]);
    }

    public function withSite(string $domain, string $root = '/'): self
    {
        $this->sites[$domain] = $root;

        return $this;
    }

    /** @param  array<string, mixed>  $columns */
    public function with(array $columns): self
    {
        $this->columns = $columns + $this->columns;

        return $this;
    }

    public function build(): Account
    {
        $client = $this->client instanceof Client
            ? $this->client
            : Client::create(['name' => $this->client, 'colour' => '#123456', 'group' => $this->group]);
        $account = $client->accounts()->make();
        $account->forceFill($this->columns)->save();
        foreach ($this->sites as $domain => $root) {
            SiteBuilder::aSite($domain)->on($account)->from($root)->build();
        }

        return $account;
    }
}
