<?php

declare(strict_types=1);

namespace Cellarium\Core\Diagnosis;

use Cellarium\Core\Connection\ConnectionSettings;
use Cellarium\Core\Connection\Endpoint;
use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\FtpRemoteDirectory;
use Cellarium\Core\Connection\NameService;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Connection\RemoteDirectories;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Path\RemotePath;

/** Climbs from name to document roots, rung by rung, and stops at the first that does not hold. */
final readonly class Ladder
{
    /** @param  array<int, string>  $usualPorts what usually answers where, for an account with a wrong port */
    public function __construct(
        private NameService $names,
        private ConnectionSettings $settings = new ConnectionSettings,
        private array $usualPorts = [21 => 'FTP', 22 => 'SFTP', 990 => 'FTP over TLS, implicit'],
    ) {
    }

    /**
     * @param  Endpoint  $endpoint  its address, where it has one, is used and not looked up
     * @param  string|null  $knownAddress  where the host was last reached, or what the provider wrote
     * @param  array<string, RemotePath>  $documentRoots  by domain
     * @param  (\Closure(Rung): void)|null  $hear  is told each rung as it is reached
     * @param  string|null  $probe  the name of a small file that is put up, read and taken away; null to write nothing
     */
    public function climb(
        Endpoint $endpoint,
        ?string $knownAddress,
        array $documentRoots,
        ?\Closure $hear = null,
        ?string $probe = null,
    ): LadderResult {
        $ascent = new LadderResult;
        foreach ($this->rungs($endpoint, $knownAddress, $documentRoots, $probe, $ascent) as $rung) {
            $ascent->rungs[] = $rung;
            $hear === null ?: $hear($rung);
            if (! $rung->ok) {
                break;
            }
        }

        return $ascent;
    }

    /**
     * @param  array<string, RemotePath>  $documentRoots
     * @return \Generator<Rung>
     */
    private function rungs(
        Endpoint $endpoint,
        ?string $knownAddress,
        array $documentRoots,
        ?string $probe,
        LadderResult $ascent,
    ): \Generator {
        $name = $this->name($endpoint, $knownAddress, $ascent);
        yield $name;
        if ($ascent->address === null) {
            return;
        }
        $endpoint = $endpoint->at($ascent->address);
        $port = $this->port($endpoint, $ascent->address);
        yield $port;
        $below = $endpoint->protocol === Protocol::Sftp ? new SshRungs($this->settings) : new FtpRungs($this->settings);
        yield from $below->climb($endpoint, array_keys($documentRoots), $ascent);
        yield from $this->files($endpoint, $documentRoots, $probe, $ascent);
    }

    private function name(Endpoint $endpoint, ?string $knownAddress, LadderResult $ascent): Rung
    {
        $found = $this->names->addresses($endpoint->host);
        $ascent->address = $endpoint->address ?? $found[0] ?? null;
        if ($endpoint->address !== null) {
            $remark = match (true) {
                in_array($endpoint->address, $found, true) => null,
                $found === [] => "The name itself has no address: its A or AAAA record is missing. The account's own "
                    .'address is used.',
                default => 'The name leads to '.implode(', ', $found).' instead. Check which is right.',
            };

            return Rung::holds(
                'name',
                "$endpoint->host is reached at $endpoint->address, as the account says",
                $remark,
            );
        }
        if ($found === []) {
            return Rung::broke(
                'name',
                "$endpoint->host has no address",
                FailureReason::NameUnknown,
                $knownAddress === null
                    ? 'The name is misspelled, or its A or AAAA record is missing'
                    : "The name has no A or AAAA record, but $knownAddress is known as its address",
                $knownAddress === null
                    ? null
                    : "Use $knownAddress meanwhile, and ask whoever looks after the name service for a record that "
                        ."leads $endpoint->host there.",
                $knownAddress === null ? null : new Remedy('address', $knownAddress),
            );
        }

        return Rung::holds(
            'name',
            "$endpoint->host is ".implode(', ', $found),
            $knownAddress === null || in_array($knownAddress, $found, true)
                ? null
                : "It was $knownAddress before. The host has moved, or the record is wrong.",
        );
    }

    private function port(Endpoint $endpoint, string $address): Rung
    {
        $from = hrtime(true);
        $error = self::tryPort($address, $endpoint->port, $this->settings->connectSeconds);
        if ($error === null) {
            return Rung::holds(
                'port',
                sprintf('Port %d answers at %s after %d ms', $endpoint->port, $address, (hrtime(true) - $from) / 1e6),
            );
        }
        foreach ($this->usualPorts as $port => $what) {
            if ($port !== $endpoint->port && self::tryPort($address, $port, 2) === null) {
                return Rung::broke(
                    'port',
                    "Port $endpoint->port does not answer: $error",
                    FailureReason::Unreachable,
                    "The port is wrong: port $port, usual for $what, does answer",
                    "Use port $port if the provider means $what.",
                    new Remedy('port', (string) $port),
                );
            }
        }

        return Rung::broke(
            'port',
            "Port $endpoint->port does not answer: $error",
            FailureReason::Unreachable,
            'The host is down, the port is wrong, or a firewall is in between',
        );
    }

    private static function tryPort(string $address, int $port, int $seconds): ?string
    {
        $socket = @stream_socket_client(
            'tcp://'.(str_contains($address, ':') ? "[$address]" : $address).":$port",
            $number,
            $error,
            $seconds,
        );
        if ($socket === false) {
            return $error === '' ? 'no reason given' : $error;
        }
        fclose($socket);

        return null;
    }

    /**
     * @param  array<string, RemotePath>  $documentRoots
     * @return \Generator<Rung>
     */
    private function files(Endpoint $endpoint, array $documentRoots, ?string $probe, LadderResult $ascent): \Generator
    {
        $remote = RemoteDirectories::open($endpoint, $this->settings);
        try {
            $count = count($remote->list(RemotePath::root()));
        } catch (RemoteFailure $failure) {
            yield FtpRungs::fromFailure(
                in_array($failure->reason, [FailureReason::SignInRefused, FailureReason::KeyNeeded], true)
                    ? 'sign-in'
                    : 'listing',
                $failure,
                $endpoint,
                array_keys($documentRoots),
            );

            return;
        }
        if ($endpoint->protocol === Protocol::Sftp) {
            yield Rung::holds(
                'sign-in',
                "Signed in as $endpoint->login with ".($endpoint->key === null ? 'the password' : 'the key'),
            );
        }
        yield Rung::holds(
            'listing',
            $count === 0
                ? 'Listed the directory of the login: it is empty'
                : "Listed the directory of the login: $count names",
        );
        $transfers = (new TransferRung($remote, $endpoint))->climb(array_values($documentRoots), $probe);
        $ascent->tls = $remote instanceof FtpRemoteDirectory ? $remote->tls() : null;
        yield $ascent->tls === null || ! $endpoint->protocol->usesTls()
            ? $transfers
            : $transfers->remarking($ascent->tls);
        $missing = [];
        foreach ($documentRoots as $domain => $root) {
            try {
                $remote->list($root);
            } catch (RemoteFailure $failure) {
                if ($failure->reason !== FailureReason::NotFound) {
                    yield Rung::broke('document roots', ucfirst($failure->getMessage()), $failure->reason);

                    return;
                }
                $missing[] = "$root for $domain";
            }
        }
        if ($missing !== []) {
            yield Rung::broke(
                'document roots',
                'Not there: '.implode(', ', $missing),
                FailureReason::NotFound,
                'The document root was moved or renamed, or this login lands somewhere else',
                'Look for the document root again.',
            );
        } elseif ($documentRoots !== []) {
            yield Rung::holds(
                'document roots',
                count($documentRoots) === 1
                    ? current($documentRoots).' is there, for '.array_key_first($documentRoots)
                    : 'All '
                        .count($documentRoots)
                        .' are there: '
                        .implode(', ', array_map(strval(...), $documentRoots)),
            );
        }
    }
}
