<?php

declare(strict_types=1);

namespace Cellarium\Core\Letter;

use Cellarium\Core\Connection\Protocol;

/**
 * Readings as they are found, weighed, put together to accounts; the best of each counts, the next best stands beside
 * it.
 */
final class LetterAccounts
{
    /** Two readings that are closer than this are a matter of doubt. */
    private const CLOSE = 2.5;

    /**
     * @var list<array{
     *     found: array<string, non-empty-list<array{Found, float}>>,
     *     weak: array<string, non-empty-list<array{Found, float}>>,
     *     said: array<string, array{string, Section|null, int, int}>,
     *     hint: Protocol|null,
     * }>
     */
    private array $accounts = [];

    /** @var array<string, array<string, string>> what belongs to something else, by section and fact */
    private array $elsewhere = [];

    /** @var array<int, true> bytes of the letter that were read as something */
    private array $taken = [];

    public function __construct()
    {
        $this->accounts = [self::blank(null)];
    }

    public function hasBegun(): bool
    {
        return $this->last()['found'] !== [];
    }

    public function begin(): void
    {
        if ($this->hasBegun()) {
            $this->accounts[] = self::blank($this->last()['hint']);
        }
    }

    public function hint(?Protocol $protocol): void
    {
        $protocol === null ?: $this->accounts[count($this->accounts) - 1]['hint'] = $protocol;
    }

    public function elsewhere(Section $section, Fact $fact, #[\SensitiveParameter] string $value): void
    {
        $value === '' ?: $this->elsewhere[$section->value][$fact->value] ??= $value;
    }

    /** What the letter says instead of a value, and of what part it says that it is the same. */
    public function say(Fact $fact, string $said, ?Section $as, int $from, int $length): void
    {
        $this->accounts[count($this->accounts) - 1]['said'][$fact->value] ??= [$said, $as, $from, $length];
    }

    /**
     * @param  bool  $weak  whether it stands in a quotation or in small print, where it counts when nothing else does
     */
    public function add(Found $found, float $score, bool $weak): void
    {
        $at = count($this->accounts) - 1;
        $name = $found->fact->value;
        $this->taken += array_fill($found->from, max(1, $found->length), true);
        if ($weak) {
            $this->accounts[$at]['weak'][$name][] = [$found, $score];

            return;
        }
        $had = $this->accounts[$at]['found'];
        if (
            $found->fact === Fact::Host
            && filter_var($found->value, FILTER_VALIDATE_IP) !== false
            && isset($had['host'])
            && $had['host'][0][0]->value !== $found->value
        ) {
            $found = new Found(Fact::Address, $found->value, $found->from, $found->length);
            $name = Fact::Address->value;
        }
        $other = isset($had[$name]) && $had[$name][0][0]->value !== $found->value;
        $complete = isset($had['login']) && (isset($had['password']) || isset($had['host']));
        if (
            $other
            && $complete
            && in_array($found->fact, [Fact::Host, Fact::Login, Fact::Domain, Fact::Protocol], true)
            && $score >= $had[$name][0][1] - self::CLOSE
        ) {
            $this->begin();
            $at++;
        }
        $this->accounts[$at]['found'][$name][] = [$found, $score];
    }

    /** How many accounts there are, the one that may still be begun among them. */
    public function count(): int
    {
        return count($this->accounts);
    }

    /** @return list<Fact> what nothing was found or said of */
    public function missing(int $account): array
    {
        $had = $this->accounts[$account];

        return array_values(
            array_filter(
                Fact::cases(),
                static fn (Fact $fact): bool => $fact !== Fact::Address
                    && ! isset(($had['found'] + $had['weak'] + $had['said'])[$fact->value]),
            ),
        );
    }

    /** Whether enough is known to say that this is about an account: a login, or a password, and something else. */
    public function isPartly(int $account): bool
    {
        $had = $this->accounts[$account]['found'] + $this->accounts[$account]['weak'];

        return count($had) > 1 || isset($had['host']) || $this->accounts[$account]['hint'] !== null;
    }

    /** Whether a heading or label says which protocol it is. */
    public function isHinted(int $account): bool
    {
        return $this->accounts[$account]['hint'] !== null;
    }

    /** @return list<string> */
    public function valuesOf(int $account): array
    {
        return array_merge(
            ...array_values(
                array_map(
                    static fn (array $readings): array => array_map(
                        static fn (array $reading): string => $reading[0]->value,
                        $readings,
                    ),
                    $this->accounts[$account]['found'],
                ),
            ),
        );
    }

    /** Whether a piece of the letter has been read as something. */
    public function isTaken(int $from, int $length): bool
    {
        for ($byte = $from; $byte < $from + $length; $byte++) {
            if (isset($this->taken[$byte])) {
                return true;
            }
        }

        return false;
    }

    /** What was open, found by other means. */
    public function complete(int $account, Found $found, bool $weak): void
    {
        if (! isset($this->accounts[$account]['found'][$found->fact->value])) {
            $this->accounts[$account][$weak ? 'weak' : 'found'][$found->fact->value][] = [$found, 0.0];
            $this->taken += array_fill($found->from, max(1, $found->length), true);
        }
    }

    /** @return list<LetterAccount> */
    public function result(): array
    {
        $result = [];
        $before = [];
        foreach ($this->accounts as $account) {
            $facts = $this->best($account);
            if (! isset($facts['login']) && ! isset($facts['host'])) {
                $before += $facts; // A domain told once, before or after, belongs to the one account there is.

                continue;
            }
            foreach ([Fact::Host, Fact::Port, Fact::Protocol] as $shared) {
                $first = $result === [] ? null : $result[0]->found[$shared->value] ?? null;
                if (! isset($facts[$shared->value]) && $first !== null && ! isset($facts['host'])) {
                    $facts[$shared->value] = new Found(
                        $shared,
                        $first->value,
                        $first->from,
                        $first->length,
                        [],
                        'told only with the first account',
                    );
                }
            }
            $said = array_map(static fn (array $one): string => $one[0], array_diff_key($account['said'], $facts));
            $result[] = new LetterAccount($this->withProtocol($facts, $account['hint']), $said);
        }

        return count($result) === 1 ? [new LetterAccount($result[0]->found + $before, $result[0]->said)] : $result;
    }

    /**
     * @param  array{
     *     found: array<string, non-empty-list<array{Found, float}>>,
     *     weak: array<string, non-empty-list<array{Found, float}>>,
     *     said: array<string, array{string, Section|null, int, int}>,
     *     hint: Protocol|null,
     * }  $account
     * @return array<string, Found>
     */
    private function best(array $account): array
    {
        $facts = [];
        foreach ($account['found'] as $name => $readings) {
            $facts[$name] = self::bestOf($readings);
        }
        foreach (array_diff_key($account['weak'], $facts, $account['said']) as $name => $readings) {
            $facts[$name] = self::bestOf($readings)->doubted('only a quotation or the small print says so');
        }
        foreach (array_diff_key($account['said'], $facts) as $name => [$said, $as, $from, $length]) {
            $same = $said === 'the same' && $as !== null ? $this->elsewhere[$as->value][$name] ?? null : null;
            $same === null
            ?: ($facts[$name] = new Found(
                Fact::from($name),
                $same,
                $from,
                $length,
                ["taken from the part about {$as->value}"],
                'the letter says: the same as there',
            ));
        }

        return $facts;
    }

    /** @param  non-empty-list<array{Found, float}>  $readings */
    private static function bestOf(array $readings): Found
    {
        [$best, $score] = $readings[0];
        $next = null;
        foreach (array_slice($readings, 1) as [$found, $other]) {
            if ($found->value === $best->value) {
                $best = $best->doubt !== null && $found->doubt === null ? $found : $best;
                $score = max($score, $other);
            } elseif ($other > $score) {
                $next = [$best, $score];
                [$best, $score] = [$found, $other];
            } elseif ($next === null || $other > $next[1]) {
                $next = [$found, $other];
            }
        }

        return $next !== null && $score - $next[1] < self::CLOSE
            ? $best->doubted('the letter names another one too', $next[0]->value)
            : $best;
    }

    /**
     * What was only said by headings, labels and ports becomes a fact of the account.
     *
     * @param  array<string, Found>  $facts
     * @return array<string, Found>
     */
    private function withProtocol(array $facts, ?Protocol $hint): array
    {
        $port = ($facts['port'] ?? null)?->value;
        $byPort = match ($port) {
            '22' => Protocol::Sftp,
            '990' => Protocol::FtpsImplicit,
            default => null,
        };
        $told = isset($facts['protocol']) ? Protocol::from($facts['protocol']->value) : null;
        if ($told !== null) {
            // "FTPS" alone may mean either; its port decides.
            if ($byPort === Protocol::FtpsImplicit && $told === Protocol::FtpsExplicit) {
                $facts['protocol'] = new Found(
                    Fact::Protocol,
                    $byPort->value,
                    $facts['protocol']->from,
                    $facts['protocol']->length,
                    ['port 990 is for implicit TLS'],
                    'its port decides between implicit and explicit',
                );
            } elseif ($byPort !== null && $told !== $byPort && $told !== Protocol::FtpsImplicit) {
                $facts['protocol'] = $facts['protocol']->doubted("port $port is usual for another one", $byPort->value);
            }

            return $facts;
        }
        $host = ($facts['host'] ?? null)->value ?? '';
        $protocol = $byPort ?? $hint;
        $doubt = match (true) {
            $protocol === null => 'only the name of the host says so',
            // "FTP access" is what people call all of it.
            $byPort === null && $protocol === Protocol::Ftp => 'only a heading says so',
            default => null,
        };
        $protocol ??= Vocabulary::protocolIn((string) strtok($host, '.'));
        $where = $facts['host'] ?? current($facts);
        if ($protocol !== null && $where !== false) {
            $facts['protocol'] = new Found(Fact::Protocol, $protocol->value, $where->from, $where->length, [], $doubt);
        }

        return $facts;
    }

    /**
     * @return array{
     *     found: array<string, non-empty-list<array{Found, float}>>,
     *     weak: array<string, non-empty-list<array{Found, float}>>,
     *     said: array<string, array{string, Section|null, int, int}>,
     *     hint: Protocol|null,
     * }
     */
    private function last(): array
    {
        return $this->accounts[count($this->accounts) - 1];
    }

    /**
     * @return array{
     *     found: array<string, non-empty-list<array{Found, float}>>,
     *     weak: array<string, non-empty-list<array{Found, float}>>,
     *     said: array<string, array{string, Section|null, int, int}>,
     *     hint: Protocol|null,
     * }
     */
    private static function blank(?Protocol $hint): array
    {
        return [
            'found' => [],
            'weak' => [],
            'said' => [],
            'hint' => $hint,
        ];
    }
}
