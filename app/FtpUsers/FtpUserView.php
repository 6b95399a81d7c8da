<?php

declare(strict_types=1);

namespace App\FtpUsers;

use App\Models\FtpUser;
use App\Models\FtpUserState;
use App\Models\Proof;
use App\Models\ProofKind;
use App\Text\Amount;
use App\Text\When;
use Illuminate\Support\Collection;

/** The state of one FTP user: its last proof step by step, and whether it is being proven just now. */
final readonly class FtpUserView
{
    /** @param  Collection<int, Proof>  $steps  of the last proof */
    private function __construct(
        public Collection $steps,
        public ?ProofKind $kind,
        public bool $working,
        public string $word,
        public string $tone,
    ) {
    }

    public static function forUser(FtpUser $user): self
    {
        $last = $user->proofs()->latest('id')->first();
        $steps = $last === null ? new Collection : $user->proofs()->where('run', $last->run)->orderBy('id')->get();
        [$word, $tone] = self::stands($user);

        return new self($steps, $last?->kind, $user->isBeingProven(), $word, $tone);
    }

    /** Its closing time as a form field has it; tomorrow evening where it has none. */
    public function closes(FtpUser $user): string
    {
        return When::field($user->closes_at ?? When::evening(1));
    }

    /** When it was used last, as far as anybody knows. */
    public function used(FtpUser $user): string
    {
        return match (true) {
            $user->used_at !== null => Amount::ago($user->used_at),
            $user->found_at !== null => 'never, as far as the host tells',
            default => 'never, made '.Amount::ago($user->created_at),
        };
    }

    /** What its last proof shows, in words. */
    public function shows(): string
    {
        return match (true) {
            $this->steps->isEmpty() => 'none yet',
            $this->kind === ProofKind::Refusal => 'that it is closed',
            default => 'of its reach, by being it',
        };
    }

    /** @return array{string, string} a word and the style it is shown in */
    public static function stands(FtpUser $user): array
    {
        return match (true) {
            $user->state === FtpUserState::Removed => ['removed', 'plain'],
            $user->state === FtpUserState::Closed => ['closed', 'plain'],
            $user->state === FtpUserState::ClosingFailed => ['could not be closed', 'now'],
            $user->isOverdue() => ['past its time', 'now'],
            $user->proof_failed_at !== null => ['proof does not hold', 'now'],
            $user->state === FtpUserState::Asked => ['not there yet', 'soon'],
            $user->state === FtpUserState::Made && $user->found_at !== null && $user->secret === null => [
                'not made here',
                'soon',
            ],
            $user->state === FtpUserState::Made => ['not proven', 'soon'],
            $user->action() !== null => ['change under way', 'soon'],
            default => ['open', 'proven'],
        };
    }
}
