<?php

declare(strict_types=1);

namespace App\Moves;

use App\Models\Account;
use App\Models\FtpUser;
use Cellarium\Core\Move\MoveCheck;
use Cellarium\Core\Path\RemotePath;

/** An FTP user, and the one that would be made for it in the other account, with another password. */
final readonly class UserMove
{
    public string $name;

    /** Why it cannot be made there; null where it can. */
    public ?string $objection;

    /** Whether there is one of that name already. */
    public bool $isThere;

    /** @var list<string> domains it would reach and does not reach now */
    public array $newlyReached;

    /** @param  RemotePath|null  $to  where it would land; null where nothing says */
    public function __construct(
        public FtpUser $user,
        Account $account,
        public ?RemotePath $to,
        MoveCheck $check,
    ) {
        $rules = $account->rules();
        $this->name = $user->account->rules()->nameIn($user->login);
        $taken = $account->ftpUsers->pluck('login')->all();
        $this->isThere = in_array($rules->full($this->name), $taken, true);
        $this->newlyReached = $to === null ? [] : $check->newlyReached($user->path(), $to);
        $this->objection = match (true) {
            $this->isThere => null,
            $to === null => 'No site that is moved lies there. Make it by hand.',
            $this->newlyReached !== [] => 'It would also reach '.implode(', ', $this->newlyReached)
                .'. Make it by hand.',
            default => $rules->objection($this->name, [$account->login, ...$taken]),
        };
    }

    public function canBeMade(): bool
    {
        return ! $this->isThere && $this->objection === null;
    }
}
