<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use phpseclib3\Crypt\Common\PrivateKey;
use phpseclib3\Crypt\PublicKeyLoader;
use phpseclib3\Exception\ConnectionClosedException;
use phpseclib3\Exception\TimeoutException;
use phpseclib3\Exception\UnableToConnectException;
use phpseclib3\Net\SFTP;

/** Opens SSH connections (RFC 4253) and signs in (RFC 4252) once the server has shown the key it is known by. */
final class SshSession
{
    /**
     * @throws RemoteFailure IdentityUnseen and IdentityChanged before login or password were sent
     */
    public static function open(
        Endpoint $endpoint,
        ConnectionSettings $settings,
        ?StepDeadline $deadline = null,
    ): SFTP {
        $what = "signing in to $endpoint->host";
        try {
            $sftp = self::connect($endpoint, $settings, $deadline);
            $seen = self::identity($sftp);
            if ($endpoint->pin === null) {
                throw RemoteFailure::while($what, FailureReason::IdentityUnseen, $seen->fingerprint);
            }
            if (! $endpoint->pin->fits($seen)) {
                throw RemoteFailure::while(
                    $what,
                    FailureReason::IdentityChanged,
                    "$seen->fingerprint, accepted was {$endpoint->pin->fingerprint}",
                );
            }
            self::authenticate($sftp, $endpoint, $what);

            return $sftp;
        } catch (RemoteFailure $failure) {
            throw $failure;
        } catch (\Exception $broken) {
            throw RemoteFailure::while(
                $what,
                self::reason($broken),
                $broken->getMessage(),
                $broken,
            );
        }
    }

    /** Connected and with a key agreed on, but not signed in. */
    public static function connect(
        Endpoint $endpoint,
        ConnectionSettings $settings,
        ?StepDeadline $deadline = null,
    ): SFTP {
        $deadline ??= new StepDeadline($settings);
        $deadline->begin(0);
        $sftp = new SFTP(PacedSocket::over(self::socket($endpoint, $settings), $deadline));
        $sftp->setTimeout($settings->answerSeconds);
        $sftp->disableStatCache();
        $sftp->disablePathCanonicalization();

        return $sftp;
    }

    /** @return resource */
    private static function socket(Endpoint $endpoint, ConnectionSettings $settings)
    {
        $host = $endpoint->address ?? $endpoint->host;
        $socket = @stream_socket_client(
            'tcp://'.(str_contains($host, ':') ? "[$host]" : $host).":$endpoint->port",
            $number,
            $error,
            $settings->connectSeconds,
        );

        return $socket !== false
            ? $socket
            : throw new UnableToConnectException("Cannot connect to $host:$endpoint->port. Error $number. $error");
    }

    /** The server's host key, its signature checked. */
    public static function identity(SFTP $sftp): Pin
    {
        $key = $sftp->getServerPublicHostKey();
        $blob = is_string($key) ? base64_decode(explode(' ', $key)[1] ?? '', true) : false;

        return is_string($blob) && $blob !== ''
            ? Pin::ofHostKey($blob)
            : throw new \RuntimeException('the host key could not be read or its signature is wrong');
    }

    /** @throws RemoteFailure SignInRefused, KeyNeeded */
    public static function authenticate(SFTP $sftp, Endpoint $endpoint, string $what): void
    {
        if ($endpoint->key !== null) {
            $key = PublicKeyLoader::load($endpoint->key->reveal());
            $ok = $key instanceof PrivateKey && $sftp->login($endpoint->login, $key);
        } else {
            $ok = $sftp->login($endpoint->login, $endpoint->password->reveal());
        }
        if (! $ok) {
            $ways = $sftp->getAuthMethodsToContinue();
            $ways = is_array($ways) ? array_filter($ways, is_string(...)) : [];
            $onlyKey = $endpoint->key === null
                && $ways !== []
                && array_intersect($ways, ['password', 'keyboard-interactive']) === [];
            throw RemoteFailure::while(
                $what,
                $onlyKey ? FailureReason::KeyNeeded : FailureReason::SignInRefused,
                $ways === [] ? null : 'it takes '.implode(', ', $ways),
            );
        }
    }

    public static function reason(\Exception $broken): FailureReason
    {
        return match (true) {
            str_contains($broken->getMessage(), 'MaxStartups') => FailureReason::TooManyConnections,
            $broken instanceof TimeoutException => FailureReason::TimedOut,
            $broken instanceof UnableToConnectException => FailureReason::Unreachable,
            $broken instanceof ConnectionClosedException => FailureReason::Disconnected,
            default => FailureReason::NotUnderstood,
        };
    }
}
