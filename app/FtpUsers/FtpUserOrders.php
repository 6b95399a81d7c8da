<?php

declare(strict_types=1);

namespace App\FtpUsers;

use App\Failure\Problem;
use App\Models\Account;
use App\Models\Closing;
use App\Models\FtpUser;
use App\Models\PendingAction;
use App\Models\Person;
use Carbon\CarbonImmutable;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Credential\PasswordStrength;
use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Path\RemotePath;

/** Orders of pages about FTP users, carried out by a worker: the host is asked, then it is proven. */
final readonly class FtpUserOrders
{
    public function __construct(private FtpUsers $users, private PasswordStrength $strength)
    {
    }

    /**
     * @param  array<mixed>  $typed
     * @return FtpUser|array<string, string> what is wrong, by field; "" for none of them; nothing was made then
     */
    public function make(Account $account, #[\SensitiveParameter] array $typed, ?Person $person): FtpUser|array
    {
        $account->load('client', 'sites.destinations', 'sites.client');
        $form = NewFtpUserForm::typed($account, $typed);
        $order = $form->order($this->strength, $person);
        if ($order === null) {
            return $form->wrong;
        }
        try {
            $user = $this->users->begin($account, $order);
        } catch (ControlFailure|RemoteFailure|Problem $refused) {
            $isTaken = $refused instanceof ControlFailure && $refused->reason->value === 'login_exists';

            return [$isTaken ? 'name' : '' => Problem::words($refused)];
        }
        $this->users->byHand($user) || ProveFtpUser::start($user);

        return $user;
    }

    /**
     * @param  array<string, mixed>  $order  with the value of a PendingAction as "action"; see reopening(), changing()
     *
     * @throws ControlFailure|Problem nothing was changed
     */
    public function change(FtpUser $user, array $order): void
    {
        $user->load('account.client', 'account.sites');
        $directory = $order['directory'] ?? null;
        $closes = $order['closes_at'] ?? null;
        match (PendingAction::from((string) ($order['action'] ?? ''))) {
            PendingAction::Renew => $this->users->renew($user),
            PendingAction::Remove => $this->users->remove($user),
            PendingAction::Reopen => $this->users->reopen(
                $user,
                Closing::from((string) ($order['ends'] ?? '')),
                is_string($closes) ? CarbonImmutable::parse($closes) : null,
                (string) ($order['reason'] ?? ''),
            ),
            PendingAction::Change => $this->users->change(
                $user,
                is_string($directory) ? RemotePath::fromString($directory) : null,
                (bool) ($order['sets_space'] ?? false),
                isset($order['space']) ? (int) $order['space'] : null,
            ),
            default => throw new \LogicException('This is no change that a page orders so.'),
        };
        if ($user->exists && ($user->action() === null || ! $this->users->byHand($user))) {
            ProveFtpUser::start($user);
        }
    }

    /** @return array<string, mixed> */
    public static function reopening(ClosingChoice $ending): array
    {
        return [
            'action' => PendingAction::Reopen->value,
            'ends' => $ending->kind->value,
            'closes_at' => $ending->at?->toIso8601String(),
            'reason' => $ending->reason,
        ];
    }

    /**
     * @param  RemotePath|null  $directory  null for the one it has
     * @param  int|null  $space  bytes; null for no limit
     * @return array<string, mixed>
     */
    public static function changing(?RemotePath $directory, bool $setsSpace, ?int $space): array
    {
        return [
            'action' => PendingAction::Change->value,
            'directory' => $directory?->toString(),
            'sets_space' => $setsSpace,
            'space' => $space,
        ];
    }
}
