<?php

declare(strict_types=1);

namespace Cellarium\Core\Diagnosis;

use Cellarium\Core\Connection\ConnectionSettings;
use Cellarium\Core\Connection\Endpoint;
use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\FtpDialogue;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Connection\SshSession;
use Cellarium\Core\Credential\Secret;

/** Greeting and host key of an SSH server; signing in comes with the listing, so that it is done once. */
final readonly class SshRungs
{
    public function __construct(private ConnectionSettings $settings)
    {
    }

    /**
     * @param  list<string>  $domains
     * @return \Generator<Rung>
     */
    public function climb(Endpoint $endpoint, array $domains, LadderResult $ascent): \Generator
    {
        $from = hrtime(true);
        $greeting = $this->greeting($endpoint);
        $ascent->latencyMs = (int) round((hrtime(true) - $from) / 1e6);
        yield $greeting;
        try {
            $sftp = SshSession::connect($endpoint, $this->settings);
            $seen = $ascent->identity = SshSession::identity($sftp);
            $methods = $sftp->getAlgorithmsNegotiated();
            $ascent->features = array_values(
                array_unique(array_filter([$methods['kex'] ?? null, $methods['hostkey'] ?? null], is_string(...))),
            );
            $sftp->disconnect();
        } catch (\Exception $failure) {
            yield Rung::broke(
                'encryption',
                'The key exchange failed: '.mb_scrub(Secret::redact($failure->getMessage())),
                $failure instanceof RemoteFailure ? $failure->reason : SshSession::reason($failure),
                'Server and Cellarium have no method in common, or the connection was cut',
            );

            return;
        }
        $about = "Host key {$seen->fingerprint}";
        yield match (true) {
            $endpoint->pin === null => Rung::broke(
                'encryption',
                $about,
                FailureReason::IdentityUnseen,
                'This server is met for the first time',
                null,
                new Remedy('identity', $seen->fingerprint),
                $seen,
            ),
            ! $endpoint->pin->fits($seen) => Rung::broke(
                'encryption',
                $about,
                FailureReason::IdentityChanged,
                "Accepted was {$endpoint->pin->fingerprint}",
                null,
                new Remedy('identity', $seen->fingerprint),
                $seen,
            ),
            default => Rung::holds('encryption', "$about; it is the one that was accepted", null, $seen),
        };
    }

    private function greeting(Endpoint $endpoint): Rung
    {
        try {
            $server = FtpDialogue::connect(
                $endpoint->host,
                (string) $endpoint->address,
                $endpoint->port,
                $this->settings->connectSeconds,
                null,
            );
        } catch (RemoteFailure $failure) {
            return Rung::broke('greeting', ucfirst($failure->getMessage()), $failure->reason);
        }
        $answer = $server->hear();
        $server->close();
        $said = $answer?->text() ?? '';

        return match (true) {
            $answer === null => Rung::broke(
                'greeting',
                "Port $endpoint->port says nothing",
                FailureReason::TimedOut,
                'This is not the port of the SSH service',
            ),
            $answer->mentions('/\ASSH-2\.0-/') => Rung::holds('greeting', "The server greets: $said"),
            $answer->mentions('/MaxStartups/') => Rung::broke(
                'greeting',
                "The server turns away: $said",
                FailureReason::TooManyConnections,
            ),
            $answer->code === 220 => Rung::broke(
                'greeting',
                "Port $endpoint->port answers: $said",
                FailureReason::NotUnderstood,
                'This is an FTP server',
                'Choose FTP over TLS for this account.',
                new Remedy('protocol', Protocol::FtpsExplicit->value),
            ),
            default => Rung::broke(
                'greeting',
                "Port $endpoint->port answers: $said",
                FailureReason::NotUnderstood,
                'This is not an SSH server',
                'Check the port.',
            ),
        };
    }
}
