<?php

declare(strict_types=1);

namespace App\Hosting;

use App\Models\Account;
use App\Models\FtpUser;
use Cellarium\Core\Account\Endpoint;
use Cellarium\Core\Account\HostingControl;
use Cellarium\Core\Account\LinkedControl;
use Cellarium\Core\Connection\FtpRemoteDirectory;
use Cellarium\Core\Connection\HostsFile;
use Cellarium\Core\Connection\NameService;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Proof\CurlWebFetcher;
use Cellarium\Core\Proof\WebFetcher;

/** From what is stored about accounts and FTP users to connections. */
final readonly class Connections
{
    private HostsFile $names;

    public function __construct(?string $hostsFile, private ?string $authorities)
    {
        $this->names = new HostsFile($hostsFile);
    }

    public function endpoint(Account $account): Endpoint
    {
        return new Endpoint(
            $account->host, $account->port, $account->protocol, $account->login, new Secret($account->secret),
            $account->address ?? $this->names->addresses($account->host)[0] ?? null, $this->authorities,
        );
    }

    public function endpointAs(FtpUser $user): Endpoint
    {
        return $this->endpoint($user->account)->signedInAs($user->login, new Secret((string) $user->secret));
    }

    public function remote(Account $account): RemoteDirectory
    {
        return new FtpRemoteDirectory($this->endpoint($account));
    }

    public function remoteAs(FtpUser $user): RemoteDirectory
    {
        return new FtpRemoteDirectory($this->endpointAs($user));
    }

    /** Null for a host that has no control service; its FTP users are then made by hand. */
    public function control(Account $account): ?HostingControl
    {
        return $account->control_url === null || $account->control_token === null
            ? null
            : new LinkedControl($account->control_url, new Secret($account->control_token), $this->authorities);
    }

    public function web(): WebFetcher
    {
        return new CurlWebFetcher(fn (string $host): ?string => $this->names->addresses($host)[0] ?? null, $this->authorities);
    }

    public function names(): NameService
    {
        return $this->names;
    }
}
