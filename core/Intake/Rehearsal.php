<?php

declare(strict_types=1);

namespace Cellarium\Core\Intake;

/**
 * The outcome of taking over a list, row by row, before it is done; pure, so that the rehearsal and the deed come to
 * the same.
 */
final readonly class Rehearsal
{
    /** @param  list<array{row: AccountRow, verdict: Verdict, words: string}>  $rows */
    private function __construct(public array $rows)
    {
    }

    /**
     * @param  array<int, Column>  $columns
     * @param  array<string, array<string, mixed>>  $known  facts of known accounts by AccountRow::keyOf(), keys as
     *     in Column; the password as a closure that compares
     * @param  array<string, string>  $domains  key of the account by domain, of all sites known
     */
    public static function fromList(AccountList $list, array $columns, array $known, array $domains): self
    {
        $rows = [];
        $seen = [];
        foreach ($list->rows as [$line, $cells]) {
            $row = AccountRow::read($line, $cells, $columns);
            $domain = $row->text('domain');
            [$verdict, $words] = match (true) {
                $row->refusal !== null => [Verdict::Refused, $row->refusal],
                isset($seen[$row->key()]) && $domain === null => [
                    Verdict::Refused,
                    "The same account stands in line {$seen[$row->key()]} already.",
                ],
                $domain !== null && isset($seen["domain $domain"]) => [
                    Verdict::Refused,
                    "The domain $domain stands in line {$seen["domain $domain"]} already.",
                ],
                $domain !== null && isset($domains[$domain]) && $domains[$domain] !== $row->key() => [
                    Verdict::Refused,
                    "The domain $domain belongs to another account.",
                ],
                isset($seen[$row->key()]) => [
                    Verdict::Changed,
                    "another site of the account in line {$seen[$row->key()]}: $domain",
                ],
                ! isset($known[$row->key()]) => ($row->text('password') ?? '') === ''
                && $row->text('protocol') !== 'sftp'
                    ? [Verdict::Refused, 'The password is missing, and the account is not known yet.']
                    : [Verdict::Fresh, ''],
                default => self::difference($row, $known[$row->key()], $domains),
            };
            if ($verdict !== Verdict::Refused) {
                $seen[$row->key()] ??= $line;
                $domain === null || $seen["domain $domain"] = $line;
            }
            $rows[] = ['row' => $row, 'verdict' => $verdict, 'words' => $words];
        }

        return new self($rows);
    }

    /**
     * @param  array<string, mixed>  $known
     * @param  array<string, string>  $domains
     * @return array{Verdict, string}
     */
    private static function difference(AccountRow $row, array $known, array $domains): array
    {
        $changed = [];
        foreach ($row->values as $column => $value) {
            $before = $known[$column] ?? null;
            $differs = match (true) {
                in_array($column, ['host', 'port', 'login'], true), $value === '' => false,
                $column === 'password' => $before instanceof \Closure && $before($value) === false,
                $column === 'domain' => ! isset($domains[(string) $row->text('domain')]),
                $column === 'document_root' => is_array($before)
                    && ($before[(string) $row->text('domain')] ?? $value) !== $value,
                default => $before !== $value,
            };
            ! $differs || $changed[] = str_replace('_', ' ', $column);
        }

        return $changed === [] ? [Verdict::Same, ''] : [Verdict::Changed, implode(', ', $changed)];
    }

    /** @return array<string, int> by verdict */
    public function counts(): array
    {
        $counts = array_fill_keys(array_column(Verdict::cases(), 'value'), 0);
        foreach ($this->rows as $row) {
            $counts[$row['verdict']->value]++;
        }

        return $counts;
    }

    public function isRefused(): bool
    {
        return $this->counts()[Verdict::Refused->value] > 0;
    }
}
