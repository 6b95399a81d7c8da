<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Account\Endpoint;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Proof\ProofStep;

/** Climbs from name to listing, rung by rung, and stops at the first that does not hold. */
final readonly class Ladder
{
    public function __construct(private NameService $names)
    {
    }

    /**
     * @param  array<string, RemotePath>  $documentRoots  by domain
     * @return list<ProofStep>
     */
    public function climb(Endpoint $endpoint, RemoteDirectory $remote, array $documentRoots): array
    {
        $addresses = $endpoint->address === null ? $this->names->addresses($endpoint->host) : [$endpoint->address];
        if ($addresses === []) {
            return [$this->broken("$endpoint->host has no address", FailureReason::NameUnknown)];
        }
        $steps = [new ProofStep(true, "$endpoint->host is ".implode(', ', $addresses))];
        $socket = @stream_socket_client("tcp://$addresses[0]:$endpoint->port", $number, $error, 10);
        if ($socket === false) {
            return [...$steps, $this->broken("Port $endpoint->port does not answer: $error", FailureReason::Unreachable)];
        }
        fclose($socket);
        $steps[] = new ProofStep(true, "Port $endpoint->port answers");
        try {
            $count = count($remote->list(RemotePath::root()));
            $steps[] = new ProofStep(true, $endpoint->protocol->isEncrypted() ? "Encrypted; the certificate is good for $endpoint->host" : 'Not encrypted: login, password and files can be read on the way', $endpoint->protocol->isEncrypted() ? null : 'Prefer TLS where the host has it.');
            $steps[] = new ProofStep(true, "Signed in as $endpoint->login and listed $count names");
            foreach ($documentRoots as $domain => $root) {
                $remote->list($root);
                $steps[] = new ProofStep(true, "$root is there, for $domain");
            }
        } catch (RemoteFailure $failure) {
            $steps[] = new ProofStep(false, ucfirst($failure->getMessage()), $failure->reason->nextStep());
        }

        return $steps;
    }

    private function broken(string $sentence, FailureReason $reason): ProofStep
    {
        return new ProofStep(false, $sentence, $reason->nextStep());
    }
}
