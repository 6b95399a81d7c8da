<?php

declare(strict_types=1);

namespace Cellarium\Core\DocumentRoot;

use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Path\RemotePath;

/** Finds through which other logins a directory is reached: a random token put there through one is read by them. */
final class SharedRootProof
{
    /**
     * The token is removed again whatever happens.
     *
     * @param  string  $nonce  random letters and digits
     * @param  list<OtherLogin>  $others
     * @return list<SharedRoot> one for each login, in their order
     *
     * @throws RemoteFailure when the token could not be put there or not be removed
     */
    public static function find(RemoteDirectory $remote, RemotePath $root, string $nonce, array $others): array
    {
        $name = DocumentRootProof::tokenName($nonce);
        $text = "cellarium $nonce\n";

        return (new PlacedFile($root, $name, $text))->during(
            $remote,
            static function (RemotePath $token) use ($remote, $others, $name, $text): array {
                $found = self::lookThroughAll($others, $name, $text);

                return self::isStillThere($remote, $token, $text)
                    ? $found
                    : array_map(self::doubted(...), $found);
            },
        );
    }

    /** A token that was taken away meanwhile was seen nowhere for that reason alone. */
    private static function doubted(SharedRoot $shared): SharedRoot
    {
        return $shared->place !== null || $shared->trouble !== null ? $shared : SharedRoot::notLookedFor(
            $shared->key,
            RemoteFailure::while('looking for a token that was removed meanwhile', FailureReason::NotFound),
        );
    }

    /** @throws RemoteFailure of the connection */
    private static function isStillThere(RemoteDirectory $remote, RemotePath $token, string $text): bool
    {
        try {
            return self::holds($remote, $token, $text);
        } catch (RemoteFailure $failure) {
            return $failure->reason->isOfOneFile() ? false : throw $failure;
        }
    }

    /**
     * @param  list<OtherLogin>  $others
     * @return list<SharedRoot>
     */
    private static function lookThroughAll(array $others, string $name, string $text): array
    {
        $silent = [];
        $found = [];
        foreach ($others as $other) {
            $found[] = $shared = isset($silent[$other->host])
                ? SharedRoot::notLookedFor($other->key, $silent[$other->host])
                : self::lookThrough($other, $name, $text);
            if ($shared->trouble?->reason->isTransient() === true) {
                $silent[$other->host] = $shared->trouble;
            }
        }

        return $found;
    }

    private static function lookThrough(OtherLogin $other, string $name, string $text): SharedRoot
    {
        foreach ($other->candidates as $directory) {
            try {
                if (self::holds($other->remote, $directory->child($name), $text)) {
                    return SharedRoot::at($other->key, $directory);
                }
            } catch (RemoteFailure $failure) {
                if (! $failure->reason->isOfOneFile()) {
                    return SharedRoot::notLookedFor($other->key, $failure);
                }
            }
        }

        return SharedRoot::nowhere($other->key);
    }

    /** @throws RemoteFailure */
    private static function holds(RemoteDirectory $remote, RemotePath $file, string $text): bool
    {
        // Asked without bytes first: over TLS a server may hang up instead of saying that there is no such file.
        if (($remote->size($file) ?? $remote->stat($file)?->size) === null) {
            return false;
        }
        $stream = fopen('php://memory', 'w+b');
        assert($stream !== false);
        $remote->read($file, $stream, strlen($text));
        rewind($stream);

        return stream_get_contents($stream) === $text;
    }

    /**
     * Directories in which another login may have what one has at a root: what it is known to have, then the root and
     * each directory that it is in left out in turn, as for a login that is shut into one of them.
     *
     * @param  list<RemotePath>  $known  directories of the other login: its document roots, those that were seen
     * @return list<RemotePath>
     */
    public static function candidates(RemotePath $root, array $known): array
    {
        $asShutIn = [];
        for ($jail = $root; $jail->depth() > 0; $jail = $jail->parent()) {
            $asShutIn[] = $root->seenFrom($jail);
        }
        $distinct = [];
        foreach (array_filter([...$known, $root, ...array_reverse($asShutIn)]) as $candidate) {
            $distinct[$candidate->toString()] = $candidate;
        }

        return array_values($distinct);
    }
}
