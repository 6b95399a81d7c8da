<?php

declare(strict_types=1);

namespace App\FtpUsers;

use App\Hosting\Connections;
use App\Models\Account;
use App\Models\FtpUser;
use App\Problem;
use App\Record\Record;
use Carbon\CarbonImmutable;
use Cellarium\Core\Account\ControlFailure;
use Cellarium\Core\Credential\PasswordMaker;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Proof\ProofStep;
use Cellarium\Core\Proof\ReachProof;
use Illuminate\Support\Str;

/** Opens FTP users and closes them, and proves both by signing in. */
final readonly class FtpUsers
{
    public function __construct(private Connections $connections)
    {
    }

    /**
     * @throws ControlFailure nothing was created
     * @throws Problem when the host has no control service
     */
    public function open(Account $account, string $name, RemotePath $directory, ?int $spaceLimit, ?CarbonImmutable $closesAt, string $purpose): FtpUser
    {
        $control = $this->connections->control($account) ?? throw new Problem("$account->company has no control service; create the FTP user at the provider.");
        $password = (new PasswordMaker)->make();
        $login = $control->createFtpUser($name, $password, $directory, $spaceLimit);
        $user = $account->ftpUsers()->create([
            'login' => $login, 'secret' => $password->reveal(), 'directory' => $directory->toString(), 'space_limit' => $spaceLimit,
            'purpose' => $purpose, 'state' => FtpUser::MADE, 'closes_at' => $closesAt,
        ]);
        $user->setRelation('account', $account);
        Record::write('ftp_user_created', "FTP user $login created, landing in $directory", $account);
        $this->prove($user);

        return $user;
    }

    /** Signs in as the user and shows where it lands and what it can do; open only if all of it holds. */
    public function prove(FtpUser $user): bool
    {
        $steps = ReachProof::open(
            $user->login, $this->connections->remoteAs($user), $this->connections->remote($user->account), $user->path(), strtolower(Str::random(12)),
        );
        $holds = $this->keep($user, 'reach', $steps);
        $user->update($holds
            ? ['state' => FtpUser::OPEN, 'reach_proven_at' => now(), 'trouble' => null]
            : ['reach_proven_at' => null, 'trouble' => end($steps)->sentence]);
        Record::write('ftp_user_proven', $holds ? "Reach of $user->login proven by signing in: {$user->reach()->sentence()}" : "Reach of $user->login not proven: {$user->trouble}", $user->account);

        return $holds;
    }

    /** Closes at the host and proves it by the refused sign-in; until then it counts as open. */
    public function close(FtpUser $user, string $why): bool
    {
        try {
            $control = $this->connections->control($user->account) ?? throw new Problem("{$user->account->company} has no control service; close the FTP user at the provider.");
            $control->closeFtpUser($user->login);
            $step = ReachProof::closed($user->login, $this->connections->remoteAs($user));
        } catch (ControlFailure|Problem $failure) {
            $step = new ProofStep(false, ucfirst($failure instanceof ControlFailure ? $failure->reason->sentence() : $failure->getMessage()), 'Close it at the provider, then try again here.');
        }
        $closed = $this->keep($user, 'refusal', [$step]);
        $user->update($closed
            ? ['state' => FtpUser::CLOSED, 'closed_at' => now(), 'refusal_proven_at' => now(), 'secret' => null, 'trouble' => null]
            : ['state' => FtpUser::CLOSING_FAILED, 'trouble' => $step->sentence]);
        Record::write('ftp_user_closed', $closed ? "FTP user $user->login closed ($why); its sign-in is refused" : "FTP user $user->login could not be closed ($why): $step->sentence", $user->account);

        return $closed;
    }

    /** @param  list<ProofStep>  $steps */
    private function keep(FtpUser $user, string $kind, array $steps): bool
    {
        foreach ($steps as $step) {
            $user->proofs()->create(['kind' => $kind, 'made_at' => now()] + $step->toArray());
        }

        return $steps !== [] && end($steps)->ok;
    }
}
