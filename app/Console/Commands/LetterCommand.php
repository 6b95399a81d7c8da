<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Failure\Problem;
use Cellarium\Core\Letter\Fact;
use Cellarium\Core\Letter\Found;
use Cellarium\Core\Letter\LetterAccount;
use Cellarium\Core\Letter\LetterReader;
use Cellarium\Core\People\Permission;

final class LetterCommand extends CellariumCommand
{
    protected const PERMISSION = Permission::ChangeAccounts;

    private const MOST_BYTES = 1_000_000;

    protected $signature = 'cellarium:letter {file : a welcome letter as text or HTML} {--json : one JSON array on '
        .'standard output}';

    protected $description = 'Read the accounts out of a welcome letter; nothing is stored, passwords are not shown';

    public function handle(): int
    {
        $file = $this->readable((string) $this->argument('file'));
        if (filesize($file) > self::MOST_BYTES) {
            throw new Problem('This file is too large for a letter. Give the text of the letter alone.');
        }
        $accounts = array_map(self::report(...), LetterReader::read((string) file_get_contents($file)));
        if ($this->wantsJson()) {
            $this->json($accounts);

            return self::PROVEN;
        }
        if ($accounts === []) {
            throw new Problem(
                'No account was found in this letter. It needs at least a host or a login with its label.',
            );
        }
        foreach ($accounts as $account) {
            foreach ($account as $name => $value) {
                is_array($value)
                    ? array_map(
                        fn (string|int $key, string $line) => $this->line(
                            is_int($key) ? "  $name: $line" : "  $name: $key: $line",
                        ),
                        array_keys($value),
                        $value,
                    )
                    : $this->components->twoColumnDetail(
                        str_replace('_', ' ', $name),
                        match (true) {
                            $value === null => 'not found',
                            is_bool($value) => $value ? 'yes' : 'no',
                            default => (string) $value,
                        },
                    );
            }
            $this->newLine();
        }

        return self::PROVEN;
    }

    /** @return array<string, mixed> */
    private static function report(LetterAccount $account): array
    {
        return [
            'host' => $account->value(Fact::Host),
            'port' => $account->port(),
            'protocol' => $account->protocol()?->value,
            'login' => $account->value(Fact::Login),
            'password_found' => $account->password() !== null,
            'directory' => $account->value(Fact::Directory),
            'domain' => $account->value(Fact::Domain),
            'otherwise' => array_map(
                static fn (Found $found): ?string => $found->fact === Fact::Password ? 'hidden' : $found->otherwise,
                array_filter($account->found, static fn (Found $found): bool => $found->otherwise !== null),
            ),
            'said' => $account->said,
            'unsure' => array_map(
                static fn (string $name, string $why): string => "$name: $why",
                array_keys($account->unsure()),
                $account->unsure(),
            ),
            'changes' => $account->changes(),
        ];
    }
}
