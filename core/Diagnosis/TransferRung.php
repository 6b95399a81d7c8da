<?php

declare(strict_types=1);

namespace Cellarium\Core\Diagnosis;

use Cellarium\Core\Connection\Endpoint;
use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Path\RemotePath;

/**
 * The rung that moves data: more than one transfer through a session, and a small file up, back and away.
 *
 * A first listing proves little: servers that want TLS sessions resumed let it pass and refuse what follows, and some
 * take files that they do not give back.
 */
final readonly class TransferRung
{
    private const TEXT = "A small file of Cellarium; it shows whether files can be put here, and may be removed.\n";

    public function __construct(
        private RemoteDirectory $remote,
        private Endpoint $endpoint,
    ) {
    }

    /**
     * @param  list<RemotePath>  $documentRoots  where writing is tried when it is not allowed where the login lands
     * @param  string|null  $probe  the file's name; null to write nothing
     */
    public function climb(array $documentRoots, ?string $probe): Rung
    {
        $from = hrtime(true);
        try {
            $this->remote->list(RemotePath::root());
        } catch (RemoteFailure $failure) {
            return $this->broke('The second transfer did not go through', $failure);
        }
        if ($probe === null) {
            return Rung::holds('transfers', 'Two transfers go through one session');
        }
        foreach ([RemotePath::root(), ...$documentRoots] as $directory) {
            try {
                $this->upAndAway($directory->child($probe));

                return Rung::holds(
                    'transfers',
                    sprintf(
                        'Two transfers in one session; a small file up, read back and away in %s, in %d ms',
                        $directory,
                        (hrtime(true) - $from) / 1e6,
                    ),
                );
            } catch (RemoteFailure $failure) {
                if (! in_array($failure->reason, [FailureReason::Forbidden, FailureReason::NotFound], true)) {
                    return $this->broke('A small file did not get there and back', $failure);
                }
            }
        }

        return Rung::holds(
            'transfers',
            'Two transfers go through one session',
            'Nothing may be written where this login lands'
                .($documentRoots === [] ? '.' : ', nor into a document root.'),
        );
    }

    /** @throws RemoteFailure */
    private function upAndAway(RemotePath $file): void
    {
        $stream = fopen('php://temp', 'w+b');
        $back = fopen('php://temp', 'w+b');
        assert($stream !== false && $back !== false);
        fwrite($stream, self::TEXT);
        rewind($stream);
        try {
            $this->remote->write($file, $stream, strlen(self::TEXT));
        } catch (RemoteFailure $failure) {
            $failure->reason->isTransient() && $this->tidy($file);
            throw $failure;
        }
        try {
            $this->remote->read($file, $back);
            rewind($back);
            if (stream_get_contents($back) !== self::TEXT) {
                throw RemoteFailure::while(
                    "reading $file",
                    FailureReason::Incomplete,
                    'other bytes came back than were sent',
                );
            }
        } catch (RemoteFailure $failure) {
            $this->tidy($file);
            throw $failure->reason === FailureReason::Forbidden || $failure->reason === FailureReason::NotFound
                ? RemoteFailure::while("reading $file", FailureReason::Incomplete, 'it was taken and is not given back')
                : $failure;
        }
        try {
            $this->remote->remove($file);
        } catch (RemoteFailure $failure) {
            throw RemoteFailure::while(
                "removing $file",
                $failure->reason === FailureReason::Forbidden ? FailureReason::Incomplete : $failure->reason,
                $failure->serverSaid ?? 'it could be put there and not removed',
                $failure,
            );
        }
    }

    private function tidy(RemotePath $file): void
    {
        try {
            $this->remote->remove($file);
        } catch (RemoteFailure) {
            // Its name is one of ours: the next run that looks there removes it.
        }
    }

    private function broke(string $evidence, RemoteFailure $failure): Rung
    {
        // Which of the two it is depends on what comes first, the refusal or the end of the connection it is about.
        $refused = $failure->reason === FailureReason::DataRefused || $failure->reason === FailureReason::Disconnected;
        [$cause, $next] = match (true) {
            $refused && $this->endpoint->protocol->usesTls() => [
                'The server wants the data connection to resume the TLS session of the control connection, or a '
                    .'firewall lets few connections through',
                'Ask the provider which TLS versions the FTP service takes and whether it demands session reuse; TLS '
                    .'1.2 with resumption is tried first.',
            ],
            $refused => [
                'A firewall lets single data connections through and not several',
                'Ask the provider to open the whole range of passive ports.',
            ],
            $failure->reason === FailureReason::Incomplete => [
                'The server confirms what it does not keep',
                'Do not deploy here before the provider has looked at their storage.',
            ],
            default => [null, null],
        };

        return Rung::broke(
            'transfers',
            "$evidence: {$failure->getMessage()}",
            $failure->reason,
            $cause,
            $next,
        );
    }
}
