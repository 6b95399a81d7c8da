<?php

declare(strict_types=1);

namespace Cellarium\Standin\World;

use RuntimeException;

/**
 * Everything the hosting company knows, kept in one `world.json` beside the homes of its accounts.
 *
 * Passwords stand there as keyed hashes. Each change is written to a new file that then takes the old one's place.
 */
final class World
{
    /** @var array<string, HostedAccount> by account name */
    private array $accounts = [];

    private function __construct(
        public readonly string $directory,
        private readonly string $salt,
        public readonly string $operatorToken,
    ) {
    }

    public static function create(string $directory): self
    {
        return new self($directory, bin2hex(random_bytes(16)), bin2hex(random_bytes(24)));
    }

    /** @throws RuntimeException when the directory holds no readable world */
    public static function load(string $directory): self
    {
        $text = @file_get_contents("$directory/world.json");
        if ($text === false) {
            throw new RuntimeException("There is no world in $directory: lay one first (standin lay).");
        }
        /**
         * @var array{
         *     salt: string,
         *     operator_token: string,
         *     accounts: list<array{
         *         name: string,
         *         host: string,
         *         home: string,
         *         space_limit: int,
         *         token: string,
         *         faults: array<mixed>,
         *         sites: list<array{
         *             domain: string,
         *             directory: string,
         *             start_pages: list<string>,
         *             mounts?: array<string, string>,
         *         }>,
         *         users: list<array{
         *             login: string,
         *             password_hash: string,
         *             directory: string,
         *             space_limit: int|null,
         *             open: bool,
         *             read_only?: bool,
         *             last_used?: float|null,
         *             closes_at?: float|null,
         *         }>,
         *     }>,
         * }  $data
         */
        $data = json_decode($text, true, 32, JSON_THROW_ON_ERROR);
        $world = new self($directory, $data['salt'], $data['operator_token']);
        foreach ($data['accounts'] as $row) {
            $users = [];
            foreach ($row['users'] as $user) {
                $users[$user['login']] = new FtpLogin(
                    $user['login'],
                    $user['password_hash'],
                    $user['directory'],
                    $user['space_limit'],
                    $user['open'],
                    $user['read_only'] ?? false,
                    $user['last_used'] ?? null,
                    $user['closes_at'] ?? null,
                );
            }
            $sites = array_map(
                static fn (array $site): HostedSite => new HostedSite(
                    $site['domain'],
                    $site['directory'],
                    $site['start_pages'],
                    $site['mounts'] ?? [],
                ),
                $row['sites'],
            );
            $account = new HostedAccount(
                $row['name'],
                $row['host'],
                "$directory/homes/{$row['home']}",
                $row['space_limit'],
                $row['token'],
                $sites,
                $users,
            );
            $account->faults = Faults::fromArray($row['faults']);
            $world->accounts[$account->name] = $account;
        }

        return $world;
    }

    public function add(HostedAccount $account): void
    {
        $this->accounts[$account->name] = $account;
    }

    public function save(): void
    {
        $rows = [];
        foreach ($this->accounts as $account) {
            $rows[] = [
                'name' => $account->name,
                'host' => $account->host,
                'home' => basename($account->home),
                'space_limit' => $account->spaceLimit,
                'token' => $account->token,
                'faults' => $account->faults->toArray(),
                'sites' => array_map(static fn (HostedSite $site): array => $site->toArray(), $account->sites),
                'users' => array_map(
                    static fn (FtpLogin $user): array => $user->toArray(),
                    array_values($account->users),
                ),
            ];
        }
        $text = json_encode(
            ['salt' => $this->salt, 'operator_token' => $this->operatorToken, 'accounts' => $rows],
            JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_THROW_ON_ERROR,
        );
        $new = "$this->directory/world.json.new";
        if (
            @file_put_contents($new, $text) !== strlen($text)
            || ! chmod($new, 0600)
            || ! rename($new, "$this->directory/world.json")
        ) {
            throw new RuntimeException("$this->directory/world.json could not be written.");
        }
    }

    public function hashPassword(#[\SensitiveParameter] string $password): string
    {
        return hash_hmac('sha256', $password, $this->salt);
    }

    /** @return array{HostedAccount, FtpLogin}|null null for a wrong pair or a closed login, alike */
    public function signIn(string $login, #[\SensitiveParameter] string $password): ?array
    {
        $hash = $this->hashPassword($password);
        foreach ($this->accounts as $account) {
            $user = $account->users[$login] ?? null;
            if ($user !== null) {
                if (! $user->letsIn($account->faults->closeNever) || ! hash_equals($user->passwordHash, $hash)) {
                    return null;
                }
                $user->lastUsed = microtime(true);

                return [$account, $user];
            }
        }

        return null;
    }

    public function account(string $name): ?HostedAccount
    {
        return $this->accounts[$name] ?? null;
    }

    public function accountByToken(#[\SensitiveParameter] string $token): ?HostedAccount
    {
        foreach ($this->accounts as $account) {
            if (hash_equals($account->token, $token)) {
                return $account;
            }
        }

        return null;
    }

    public function loginExists(string $login): bool
    {
        foreach ($this->accounts as $account) {
            if (isset($account->users[$login])) {
                return true;
            }
        }

        return false;
    }

    /** @return array{HostedAccount, HostedSite}|null */
    public function siteByDomain(string $domain): ?array
    {
        foreach ($this->accounts as $account) {
            foreach ($account->sites as $site) {
                if ($site->domain === $domain) {
                    return [$account, $site];
                }
            }
        }

        return null;
    }
}
