<?php

declare(strict_types=1);

namespace Tests\Support\Builder;

use App\Models\Account;
use App\Models\Client;
use App\Models\Site;

/** A site as a test needs it: `SiteBuilder::aSite('other.example')->on($account)->from('/www/other')->build()`. */
final class SiteBuilder
{
    /** @var array<string, mixed> */
    private array $columns;

    private ?Account $account = null;

    private function __construct(string $domain)
    {
        $this->columns = [
            'domain' => $domain,
            'base_url' => "http://$domain",
            'document_root' => '/',
            'start_pages' => ['index.html'],
            'kept' => [],
        ];
    }

    public static function aSite(string $domain): self
    {
        return new self($domain);
    }

    public function on(Account $account): self
    {
        $this->account = $account;

        return $this;
    }

    public function from(string $root): self
    {
        return $this->with(['document_root' => $root]);
    }

    /** @param  int  $port  where its pages are served */
    public function served(int $port): self
    {
        return $this->with(['base_url' => "http://{$this->columns['domain']}:$port"]);
    }

    public function of(Client $client): self
    {
        return $this->with(['client_id' => $client->id]);
    }

    /** @param  array<string, mixed>  $columns */
    public function with(array $columns): self
    {
        $this->columns = $columns + $this->columns;

        return $this;
    }

    public function build(): Site
    {
        $account = $this->account ?? throw new \LogicException('Say with on() which account it is on.');

        return $account->sites()->create($this->columns);
    }
}
