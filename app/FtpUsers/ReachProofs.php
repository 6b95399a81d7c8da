<?php

declare(strict_types=1);

namespace App\FtpUsers;

use App\Hosting\Connections;
use App\Models\FtpUser;
use App\Models\ProofKind;
use Carbon\CarbonImmutable;
use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Hosting\HostedUser;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Proof\Evidence;
use Cellarium\Core\Proof\ProofStep;
use Cellarium\Core\Proof\ReachProof;
use Illuminate\Support\Str;
use Psr\Clock\ClockInterface;

/** Signs in as FTP users, to see what they can do or that they are refused, and writes down every step. */
final readonly class ReachProofs
{
    public function __construct(private Connections $connections, private ClockInterface $clock)
    {
    }

    /** @param  Secret|null  $password  another than the one that is known to be right */
    public function open(FtpUser $user, ?Secret $password = null): Evidence
    {
        $told = $this->told($user);
        $this->noteUse($user, $told);
        $evidence = $user->secret === null && $password === null
            ? $this->asTold($user, $told)
            : $this->asUser($user, $password, $told);
        $this->keep($user, ProofKind::Reach, $evidence);
        // By the host's clock, so that the next look tells our own sign-in from anybody else's.
        $user->update(['tried_at' => now(), 'seen_use' => $this->lastUse($user)]);

        return $evidence;
    }

    public function closed(FtpUser $user): Evidence
    {
        $this->noteUse($user, $this->told($user));
        $evidence = $this->proof($user, null, '')->closed();
        $this->keep($user, ProofKind::Refusal, $evidence);
        $user->update(['tried_at' => now()] + ($evidence->holds() ? [] : ['seen_use' => $this->lastUse($user)]));

        return $evidence;
    }

    /** Null where the host does not tell, or cannot be asked just now: then the sign-in alone tells. */
    public function told(FtpUser $user): ?HostedUser
    {
        try {
            return $this->connections->control($user->account)?->ftpUser($user->login);
        } catch (ControlFailure $failure) {
            logger()->warning($failure->getMessage());

            return null;
        }
    }

    private function asUser(FtpUser $user, ?Secret $password, ?HostedUser $told): Evidence
    {
        $nonce = strtolower(Str::random(12));
        // Written down first: what a killed process or a broken connection leaves on the server is removed later.
        $before = $user->probe;
        $user->update([
            'probe' => [...$before ?? [], ['nonce' => $nonce, 'directory' => $user->meant()->directory->toString()]],
        ]);
        $evidence = $this->proof($user, $password, $nonce)->open($told);
        if ($evidence->broken()?->name !== 'tidy' && $evidence->decided()) {
            $user->update(['probe' => $before]);
        }

        return $evidence;
    }

    /**
     * Removes what a proof that was cut off has left on the server.
     *
     * @throws RemoteFailure it is tried again later
     */
    public function tidy(FtpUser $user): void
    {
        $remote = $this->connections->remote($user->account);
        foreach ($user->probe ?? [] as $probe) {
            foreach (ReachProof::leftBehind($probe['nonce']) as $name) {
                $place = RemotePath::fromString($probe['directory'])->child($name);
                try {
                    $remote->stat($place) === null || $remote->remove($place);
                } catch (RemoteFailure $failure) {
                    // The directory itself is gone, and all in it.
                    $failure->reason === FailureReason::NotFound || throw $failure;
                }
            }
        }
        $user->update(['probe' => null]);
    }

    private function proof(FtpUser $user, ?Secret $password, string $nonce): ReachProof
    {
        return new ReachProof(
            $user->meant(),
            $this->connections->remoteAs($user, $password),
            $this->connections->remote($user->account),
            $nonce,
            $this->clock,
        );
    }

    /** Where its password was forgotten, nobody here can be it; what the host says is all there is, and it says so. */
    private function asTold(FtpUser $user, ?HostedUser $told): Evidence
    {
        $at = (float) $this->clock->now()->format('U.u');
        if ($told === null) {
            return new Evidence([
                new ProofStep(
                    false,
                    'The host could not be asked, and its password was forgotten here',
                    'Try again, or renew its password to prove it by signing in.',
                    'told',
                    null,
                    $at,
                    false,
                ),
            ]);
        }
        $meant = $user->meant();
        $as = $told->open
            && $told->directory === $meant->directory->toString()
            && $told->spaceLimit === $meant->spaceLimit
            && $told->readOnly === $meant->readOnly;

        return new Evidence([
            new ProofStep(
                $as,
                $as
                    ? 'Directory, space and permissions are as asked for, the host says; nobody signed in, '
                        .'its password was forgotten here'
                    : 'The host says otherwise: it is '
                        .($told->open ? 'open' : 'closed')
                        ." and lands in $told->directory",
                $as ? null : 'Close it, or renew its password and prove it.',
                'told',
                null,
                $at,
            ),
        ]);
    }

    private function lastUse(FtpUser $user): ?string
    {
        $last = $this->told($user)?->lastUsed;

        return $last === null ? $user->seen_use : mb_substr($last, 0, 40);
    }

    private function noteUse(FtpUser $user, ?HostedUser $told): void
    {
        $last = $told?->lastUsed === null ? null : mb_substr($told->lastUsed, 0, 40);
        if ($last === null || $last === $user->seen_use) {
            return;
        }
        $at = rescue(static fn (): CarbonImmutable => CarbonImmutable::parse($last), null, false);
        if ($at !== null) {
            $user->update(['used_at' => $at->min(now()), 'seen_use' => $last]);
        }
    }

    private function keep(FtpUser $user, ProofKind $kind, Evidence $evidence): void
    {
        $run = strtolower(Str::random(12));
        $rows = array_map(
            static fn (ProofStep $step): array => [
                'subject_type' => $user->getMorphClass(),
                'subject_id' => $user->id,
                'kind' => $kind,
                'run' => $run,
                'made_at' => $step->at === null
                    ? now()->format('Y-m-d H:i:s.v')
                    : CarbonImmutable::createFromTimestamp($step->at, config('app.timezone'))->format('Y-m-d H:i:s.v'),
                'sentence' => mb_substr($step->sentence, 0, 1000),
                'next' => $step->next === null ? null : mb_substr($step->next, 0, 500),
            ] + $step->toArray(),
            $evidence->steps,
        );
        $user->proofs()->getQuery()->insert($rows);
    }
}
