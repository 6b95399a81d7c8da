<?php

declare(strict_types=1);

namespace Cellarium\Core\Reach;

/** The reach of all logins over all accounts, those that stand out most first. */
final readonly class FleetScope
{
    /** @param  list<LoginScope>  $logins */
    private function __construct(public array $logins)
    {
    }

    /**
     * @param  iterable<AccountScope>  $accounts
     * @param  int  $now  seconds since 1970
     * @param  int  $idleAfter  days
     */
    public static function fromAccounts(iterable $accounts, int $now, int $idleAfter = 30): self
    {
        $logins = [];
        foreach ($accounts as $account) {
            foreach ($account->logins as $login) {
                $logins[] = LoginScope::fromLogin($account, $login, $now, $idleAfter);
            }
        }
        $grave = [];
        foreach (array_reverse(Flag::cases()) as $place => $flag) {
            $grave[$flag->value] = 10000 << ($place + 1);
        }
        $weights = array_map(static fn (LoginScope $login): int => self::weight($login, $grave), $logins);
        arsort($weights);

        return new self(array_map(static fn (int $at): LoginScope => $logins[$at], array_keys($weights)));
    }

    /** @return array<string, int> how many have each flag, by its value, every flag with it */
    public function counts(): array
    {
        $counts = array_fill_keys(array_column(Flag::cases(), 'value'), 0);
        foreach ($this->logins as $login) {
            foreach ($login->flags as $flag) {
                $counts[$flag->value]++;
            }
        }

        return $counts;
    }

    /**
     * One flag outweighs all that are less grave together; idle days decide among equals.
     *
     * @param  array<string, int>  $grave  by flag
     */
    private static function weight(LoginScope $scope, array $grave): int
    {
        return array_reduce(
            $scope->flags,
            static fn (int $weight, Flag $flag): int => $weight + $grave[$flag->value],
            min($scope->idleDays, 9999),
        );
    }
}
