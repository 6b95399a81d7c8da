<?php

declare(strict_types=1);

namespace Cellarium\Core\Proof;

use Cellarium\Core\Connection\Climbs;
use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Path\RemotePath;

/** Proves what an FTP user can touch by being that user, and that a closed one is refused. */
final class ReachProof
{
    /**
     * @param  RemoteDirectory  $asUser  signed in as the FTP user
     * @param  RemoteDirectory  $asAccount  signed in as the account itself
     * @param  RemotePath  $directory  where the user is meant to land, as the account sees it
     * @param  string  $nonce  random letters for the probe's name
     * @return list<ProofStep> ends at the first that fails
     */
    public static function open(string $login, RemoteDirectory $asUser, RemoteDirectory $asAccount, RemotePath $directory, string $nonce): array
    {
        $steps = [];
        try {
            $landed = self::names($asUser->list(RemotePath::root()));
            $steps[] = new ProofStep(true, "Signed in as $login");
            $expected = self::names($asAccount->list($directory));
            $agree = count(array_intersect($landed, $expected));
            $all = count(array_unique([...$landed, ...$expected]));
            if ($agree !== $all) {
                return [...$steps, new ProofStep(false, "Landed elsewhere: $agree of $all names agree with $directory", 'Close this user and look at its directory at the provider.')];
            }
            $steps[] = new ProofStep(true, "Landed in $directory: $agree of $all names agree");
            if ($asUser instanceof Climbs) {
                if (self::names($asUser->listAbove()) !== $landed) {
                    return [...$steps, new ProofStep(false, 'Could climb above its directory', 'Close this user: the host does not jail it.')];
                }
                $steps[] = new ProofStep(true, 'Could not climb above it');
            }
            self::probe($asUser, RemotePath::root()->child(".cellarium-$nonce-0.part"));
            $steps[] = new ProofStep(true, 'Wrote, read back and removed a probe');
        } catch (RemoteFailure $failure) {
            $steps[] = new ProofStep(false, ucfirst($failure->getMessage()), $failure->reason->nextStep());
        }

        return $steps;
    }

    /** A closed user is proven by the refusal of its sign-in and by nothing else. */
    public static function closed(string $login, RemoteDirectory $asUser): ProofStep
    {
        try {
            $asUser->list(RemotePath::root());

            return new ProofStep(false, "$login can still sign in", 'Close it again, or at the provider.');
        } catch (RemoteFailure $failure) {
            return $failure->reason === FailureReason::SignInRefused
                ? new ProofStep(true, "$login: sign-in refused".($failure->serverSaid === null ? '' : ' ('.substr($failure->serverSaid, 0, 3).')'))
                : new ProofStep(false, "$login: could not be tried, ".$failure->reason->sentence(), $failure->reason->nextStep());
        }
    }

    private static function probe(RemoteDirectory $remote, RemotePath $place): void
    {
        $text = "A probe of Cellarium; it may be removed.\n";
        $stream = fopen('php://temp', 'w+b');
        assert($stream !== false);
        fwrite($stream, $text);
        rewind($stream);
        try {
            $remote->write($place, $stream, strlen($text));
            $back = fopen('php://temp', 'w+b');
            assert($back !== false);
            $remote->read($place, $back);
            rewind($back);
            if (stream_get_contents($back) !== $text) {
                throw RemoteFailure::while("reading back $place", FailureReason::Incomplete);
            }
        } finally {
            $remote->remove($place);
        }
    }

    /**
     * @param  list<RemoteEntry>  $entries
     * @return list<string>
     */
    private static function names(array $entries): array
    {
        $names = array_map(static fn (RemoteEntry $entry): string => $entry->name, $entries);
        sort($names, SORT_STRING);

        return $names;
    }
}
