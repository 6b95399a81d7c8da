<?php

declare(strict_types=1);

namespace Cellarium\Core\Proof;

use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Connection\TriesPaths;
use Cellarium\Core\Hosting\HostedUser;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Reach\MeantReach;
use Cellarium\Core\Words\Bytes;
use Psr\Clock\ClockInterface;

/**
 * Proves what an FTP user can touch by being that user, and that a closed one is refused.
 *
 * The account puts a marker into the directory meant, so that even an empty directory is told from every other; it is
 * gone again at the end, whatever happened.
 */
final class ReachProof
{
    /** @var list<ProofStep> */
    private array $steps = [];

    private readonly string $marker;

    private bool $marked = false;

    /** Whether the marker shows in listings. */
    private bool $seen = false;

    /** Whether the user may have written something. */
    private bool $probed = false;

    /**
     * @param  RemoteDirectory&TriesPaths  $asUser  signed in as the FTP user over a connection of its own, never
     *     used before
     * @param  RemoteDirectory  $asAccount  signed in as the account itself
     * @param  string  $nonce  random letters for names
     */
    public function __construct(
        private readonly MeantReach $meant,
        private readonly RemoteDirectory&TriesPaths $asUser,
        private readonly RemoteDirectory $asAccount,
        private readonly string $nonce,
        private readonly ClockInterface $clock,
    ) {
        $this->marker = self::leftBehind($nonce)[0];
    }

    /** @param  HostedUser|null  $told  what the host tells about it, where it tells */
    public function open(?HostedUser $told = null): Evidence
    {
        try {
            $this->mark();
            $landed = $this->signIn();
            $this->landing($landed);
            (new WaysOut(
                $this->meant,
                $this->asUser,
                $this->asAccount,
                self::names($landed),
                $this->seen ? $this->marker : null,
            ))->tryAll(
                $landed,
                fn (string $name, string $sentence, ?string $answer) => $this->hold($name, $sentence, $answer),
            );
            $this->meant->readOnly ? $this->mayNotWrite() : $this->writes();
            $told === null ?: $this->asTold($told);
        } catch (DoesNotHold $broken) {
            $this->steps[] = new ProofStep(
                false,
                $broken->getMessage(),
                $broken->next,
                $broken->step,
                $broken->answer,
                $this->now(),
            );
        } catch (InconclusiveProof $away) {
            $this->steps[] = new ProofStep(
                false,
                "As the account itself: {$away->failure->getMessage()}",
                $away->failure->reason->nextStep(),
                $this->next(),
                $away->failure->serverSaid,
                $this->now(),
                false,
            );
        } catch (RemoteFailure $failure) {
            $this->steps[] = $this->failed($this->next(), $failure);
        }
        $this->unmark();

        return $this->evidence();
    }

    /** A closed user is proven by the refusal of its sign-in and by nothing else. */
    public function closed(): Evidence
    {
        $login = $this->meant->login;
        try {
            $this->asUser->landing();
            $this->steps[] = new ProofStep(
                false,
                "$login can still sign in",
                'Close it again, or at the provider.',
                'refused',
                $this->answer('2'),
                $this->now(),
            );
        } catch (RemoteFailure $failure) {
            $this->steps[] = $failure->reason === FailureReason::SignInRefused
                ? new ProofStep(
                    true,
                    "$login: sign-in refused"
                        .($failure->serverSaid === null ? '' : ' ('.substr($failure->serverSaid, 0, 3).')'),
                    null,
                    'refused',
                    $failure->serverSaid,
                    $this->now(),
                )
                : new ProofStep(
                    false,
                    "$login: could not be tried, ".$failure->reason->sentence(),
                    $failure->reason->nextStep(),
                    'refused',
                    $failure->serverSaid,
                    $this->now(),
                    false,
                );
        }

        return $this->evidence();
    }

    private function evidence(): Evidence
    {
        return new Evidence($this->steps === [] ? throw new \LogicException('a proof without steps') : $this->steps);
    }

    private function mark(): void
    {
        $place = $this->meant->directory->child($this->marker);
        try {
            $this->write($this->asAccount, $place, 'A marker of Cellarium; it may be removed.');
            $this->marked = true;
            $this->seen = $this->asAccount->stat($place) !== null; // Some servers hide such names.
        } catch (RemoteFailure $failure) {
            if ($failure->reason === FailureReason::NotFound) {
                throw new DoesNotHold(
                    'landing',
                    "{$this->meant->directory} is not there",
                    'Make the directory, or give the user another one.',
                    $failure->serverSaid,
                );
            }
            // A full or a locked account is proven without it; one that cannot be reached says nothing about its user.
            in_array($failure->reason, [FailureReason::NoSpace, FailureReason::Forbidden], true)
                || throw new InconclusiveProof($failure);
        }
    }

    private function unmark(): void
    {
        foreach (
            [...$this->marked ? [$this->marker] : [], ...$this->probed ? [self::probe($this->nonce)] : []] as $name
        ) {
            try {
                $place = $this->meant->directory->child($name);
                if ($this->asAccount->stat($place) !== null) {
                    $this->asAccount->remove($place);
                }
            } catch (RemoteFailure $failure) {
                $this->steps[] = $this->failed('tidy', $failure);
                break;
            }
        }
    }

    /** @return list<RemoteEntry> */
    private function signIn(): array
    {
        try {
            $landed = $this->asUser->landing();
        } catch (RemoteFailure $failure) {
            throw $failure->reason->isTransient()
                ? $failure
                : new DoesNotHold(
                    'sign_in',
                    ucfirst($failure->getMessage()),
                    $failure->reason->nextStep(),
                    $failure->serverSaid,
                );
        }
        $this->hold('sign_in', "Signed in as {$this->meant->login}", $this->answer('230'));

        return $landed;
    }

    /** @param  list<RemoteEntry>  $landed */
    private function landing(array $landed): void
    {
        $names = self::names($landed);
        $expected = self::names($this->account(fn (): array => $this->asAccount->list($this->meant->directory)));
        $agree = count(array_intersect($names, $expected));
        $all = count(array_unique([...$names, ...$expected]));
        $answer = $this->answer('226') ?? $this->answer('250');
        if ($this->seen ? ! in_array($this->marker, $names, true) : $agree !== $all) {
            throw new DoesNotHold(
                'landing',
                "Landed elsewhere: $agree of $all names agree with {$this->meant->directory}",
                'Close this user and look at its directory at the provider.',
                $answer,
            );
        }
        // Where the marker is seen, names that differ only tell that somebody is at work there just now.
        $mark = $this->seen ? 1 : 0;
        $this->hold(
            'landing',
            "Landed in {$this->meant->directory}: "
                .($agree - $mark)
                .' of '
                .($all - $mark)
                .' names agree'
                .($this->seen ? ', and a marker put there is seen' : ''),
            $answer,
        );
    }

    private function writes(): void
    {
        $probe = RemotePath::root()->child(self::probe($this->nonce));
        $there = $this->meant->directory->child(self::probe($this->nonce));
        $text = "A probe of Cellarium; it may be removed. $this->nonce";
        $this->probed = true;
        $this->write($this->asUser, $probe, $text);
        $answer = $this->answer('2');
        if ($this->account(fn (): ?RemoteEntry => $this->asAccount->stat($there)) === null) {
            throw new DoesNotHold(
                'write',
                "What it writes does not arrive in {$this->meant->directory}",
                'Close this user and look at its directory at the provider.',
                $answer,
            );
        }
        $this->hold('write', "Wrote a small file, seen in {$this->meant->directory}", $answer);
        if ($this->read($this->asUser, $probe) !== $text) {
            throw RemoteFailure::while("reading back $probe", FailureReason::Incomplete);
        }
        $this->hold('read_back', 'Read it back, the same to the byte', $this->answer('226'));
        $this->asUser->remove($probe);
        $answer = $this->answer('250');
        if ($this->account(fn (): ?RemoteEntry => $this->asAccount->stat($there)) !== null) {
            throw new DoesNotHold('remove', 'What it removed is still there', 'Remove it by hand.', $answer);
        }
        $this->hold('remove', 'Removed it again', $answer);
    }

    private function mayNotWrite(): void
    {
        $probe = RemotePath::root()->child(self::probe($this->nonce));
        $this->probed = true;
        try {
            $this->write($this->asUser, $probe, 'This must not be taken.');
            throw new DoesNotHold(
                'write',
                'It may write, though it was made to read only',
                'Close this user; the host gives more than was asked.',
                $this->answer('2'),
            );
        } catch (RemoteFailure $refused) {
            $refused->reason->isTransient() && throw $refused;
            $this->hold('write', 'May not write', $refused->serverSaid);
        }
        if ($this->seen) {
            $this->read($this->asUser, RemotePath::root()->child($this->marker));
            $this->hold('read_back', 'Read the marker', $this->answer('226'));
            try {
                $this->asUser->remove(RemotePath::root()->child($this->marker));
                throw new DoesNotHold(
                    'remove',
                    'It may remove, though it was made to read only',
                    'Close this user; the host gives more than was asked.',
                    $this->answer('250'),
                );
            } catch (RemoteFailure $refused) {
                $refused->reason->isTransient() && throw $refused;
                $this->hold('remove', 'May not remove', $refused->serverSaid);
            }
        }
    }

    private function asTold(HostedUser $told): void
    {
        $words = static fn (?int $bytes): string => $bytes === null ? 'no limit' : Bytes::words($bytes);
        if ($told->spaceLimit !== $this->meant->spaceLimit) {
            throw new DoesNotHold(
                'space',
                "Space: {$words($told->spaceLimit)}, where {$words($this->meant->spaceLimit)} was asked for",
                'Set the space again, or close this user.',
            );
        }
        $this->hold('space', "Space: {$words($told->spaceLimit)}, as asked for, the host says");
    }

    /**
     * @template T
     *
     * @param  \Closure(): T  $work
     * @return T
     */
    private function account(\Closure $work): mixed
    {
        try {
            return $work();
        } catch (RemoteFailure $failure) {
            throw new InconclusiveProof($failure);
        }
    }

    private function hold(string $name, string $sentence, ?string $answer = null): void
    {
        $this->steps[] = new ProofStep(true, $sentence, null, $name, $answer, $this->now());
    }

    private function failed(string $name, RemoteFailure $failure): ProofStep
    {
        return new ProofStep(
            false,
            ucfirst($failure->getMessage()),
            $failure->reason->nextStep(),
            $name,
            $failure->serverSaid,
            $this->now(),
            ! $failure->reason->isTransient(),
        );
    }

    /** The step that was being taken. */
    private function next(): string
    {
        $last = end($this->steps);

        return [
            '' => 'sign_in',
            'sign_in' => 'landing',
            'landing' => 'parent',
            'parent' => 'absolute',
            'absolute' => 'encoded',
            'encoded' => 'files',
            'files' => 'link',
            'link' => 'write',
            'write' => 'read_back',
            'read_back' => 'remove',
            'remove' => 'space',
        ][$last === false ? '' : $last->name] ?? 'space';
    }

    /** The last line the server answered with such a code. */
    private function answer(string $code): ?string
    {
        foreach (array_reverse($this->asUser->answers()) as $line) {
            if (str_starts_with($line, $code)) {
                return mb_substr(mb_scrub($line), 0, 300);
            }
        }

        return null;
    }

    private function now(): float
    {
        return (float) $this->clock->now()->format('U.u');
    }

    private static function probe(string $nonce): string
    {
        return self::leftBehind($nonce)[1];
    }

    /** @return array{string, string} names that a proof which was cut off may leave in the directory meant */
    public static function leftBehind(string $nonce): array
    {
        return [".cellarium-$nonce-0.part", ".cellarium-$nonce-1.part"];
    }

    private function write(RemoteDirectory $remote, RemotePath $place, string $text): void
    {
        $stream = fopen('php://temp', 'w+b');
        assert($stream !== false);
        fwrite($stream, $text);
        rewind($stream);
        $remote->write($place, $stream, strlen($text));
    }

    private function read(RemoteDirectory $remote, RemotePath $place): string
    {
        $back = fopen('php://temp', 'w+b');
        assert($back !== false);
        $remote->read($place, $back);
        rewind($back);

        return (string) stream_get_contents($back);
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
