<?php

declare(strict_types=1);

namespace App\Hosting;

use App\Failure\Problem;
use App\Models\Account;
use App\Models\FtpUser;
use Cellarium\Core\Connection\ConnectionPool;
use Cellarium\Core\Connection\Endpoint;
use Cellarium\Core\Connection\HostsFile;
use Cellarium\Core\Connection\HostSlots;
use Cellarium\Core\Connection\NameService;
use Cellarium\Core\Connection\Pin;
use Cellarium\Core\Connection\RemoteDirectories;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\TlsUse;
use Cellarium\Core\Connection\TriesPaths;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Diagnosis\Ladder;
use Cellarium\Core\Hosting\ControlService;
use Cellarium\Core\Hosting\HostingControl;
use Cellarium\Core\Hosting\LinkedControl;
use Cellarium\Core\Hosting\LinkedJobs;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Outage\OutageWatch;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Web\CurlWebClient;

/** From what is stored about accounts and FTP users to connections. */
final readonly class Connections
{
    private HostsFile $names;

    public function __construct(
        ?string $hostsFile,
        private ?string $authorities,
        public HostSlots $slots,
        public ConnectionPool $pool,
        private AskingHosts $asking,
    ) {
        $this->names = new HostsFile($hostsFile);
    }

    /** @throws Problem when host, port, protocol or login are others than those that the secrets were given for */
    public function endpoint(Account $account): Endpoint
    {
        $this->asking->check();
        if ($account->exists && $account->secretsAreForElsewhere()) {
            throw new Problem(
                "The password of $account->login was given for another host, port, protocol, login or address. Type "
                    ."it in again in the account's form, so that it goes nowhere it was not meant for.",
            );
        }

        return new Endpoint(
            $account->host,
            $account->port,
            $account->protocol,
            $account->login,
            new Secret($account->secret),
            $account->address ?? ($this->names->addresses($account->host)[0] ?? null),
            $this->authorities,
            $account->pin === null ? null : Pin::fromFields(new JsonFields($account->pin)),
            $account->private_key === null ? null : new Secret($account->private_key),
            $account->start_directory === null ? null : RemotePath::fromString($account->start_directory),
            $account->active_mode,
            $account->tls_use ?? TlsUse::Resuming,
        );
    }

    /** With the address only where the account has one of its own, so that the ladder looks the name up. */
    public function endpointAsSaved(Account $account): Endpoint
    {
        return $this->endpoint($account)->at($account->address);
    }

    public function ladder(): Ladder
    {
        $this->asking->check();

        return new Ladder($this->names);
    }

    /**
     * @param  Secret|null  $password  another than the one that is known to be right
     *
     * @throws Problem where the one that is known was given for elsewhere; it is not sent
     */
    public function endpointAs(FtpUser $user, ?Secret $password = null): Endpoint
    {
        $account = $user->account;
        $isStored = $password === null || hash_equals((string) $user->secret, $password->reveal());
        $isStored && $user->secretIsForElsewhere() && throw new Problem(
            "The password of $user->login was given for another port or protocol than {$account->host} port "
                ."{$account->ftpPort()}, {$account->ftpProtocol()->label()}, and is not sent there. Renew it, or put "
                .'the settings of the account back.',
        );
        $endpoint = $this->endpoint($account)->signedInAs(
            $user->login,
            $password ?? new Secret((string) $user->secret),
        );

        return $account->ftp_protocol === null && $account->ftp_port === null
            ? $endpoint
            : $endpoint->through($account->ftpProtocol(), $account->ftpPort());
    }

    public function remote(Account $account): RemoteDirectory
    {
        return $this->pool->directory($this->endpoint($account));
    }

    public function remoteAs(FtpUser $user, ?Secret $password = null): RemoteDirectory&TriesPaths
    {
        // Never an open one: that a user can sign in, or no longer can, is what it is asked for.
        return RemoteDirectories::open($this->endpointAs($user, $password));
    }

    /** Null for a host that has no control service; its FTP users are then made by hand. */
    public function control(Account $account): ?HostingControl
    {
        return self::hasControl($account)
            ? new LinkedControl(
                (string) $account->control_url,
                new Secret((string) $account->control_token),
                $this->web(),
            )
            : null;
    }

    public static function hasControl(Account $account): bool
    {
        return $account->control_url !== null && $account->control_token !== null;
    }

    /** What the host does with files by itself; null for a host that has no control service. */
    public function jobs(Account $account): ?LinkedJobs
    {
        return self::hasControl($account)
            ? new LinkedJobs(
                new ControlService(
                    (string) $account->control_url,
                    new Secret((string) $account->control_token),
                    $this->web(),
                ),
            )
            : null;
    }

    public function web(): CurlWebClient
    {
        $this->asking->check();

        return new CurlWebClient(
            fn (string $host): ?string => $this->names->addresses($host)[0] ?? null,
            $this->authorities,
        );
    }

    /** @param  string|null  $at  IP address to ask, where the name does not lead there */
    public function outageWatch(string $url, ?string $at): OutageWatch
    {
        $this->asking->check();
        $host = (string) parse_url($url, PHP_URL_HOST);

        return new OutageWatch($url, $at ?? $this->names->addresses($host)[0] ?? null, $this->authorities);
    }

    public function names(): NameService
    {
        return $this->names;
    }
}
