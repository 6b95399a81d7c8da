<?php

declare(strict_types=1);

namespace Cellarium\Core\Intake;

/**
 * A list of accounts as comma-separated values (RFC 4180; semicolons and tabs are in use as well), its first line the
 * headings.
 */
final readonly class AccountList
{
    /**
     * @param  list<string>  $headings
     * @param  list<array{int, list<string>}>  $rows  line number in the file and cells
     */
    private function __construct(
        public array $headings,
        public array $rows,
    ) {
    }

    /**
     * @param  int  $most  rows taken at the most
     *
     * @throws ListRefused
     */
    public static function read(string $text, int $most = 20_000): self
    {
        $text = str_starts_with($text, "\xEF\xBB\xBF") ? substr($text, 3) : $text;
        if (! mb_check_encoding($text, 'UTF-8')) {
            // What spreadsheets of Western Europe write where they do not write UTF-8.
            $text = mb_convert_encoding($text, 'UTF-8', 'Windows-1252');
        }
        $first = strtok($text, "\n");
        if ($first === false || trim($first) === '') {
            throw ListRefused::because('The list is empty: its first line holds the headings of the columns.');
        }
        $mark = self::mark($first);
        $stream = fopen('php://temp', 'w+b');
        assert($stream !== false);
        fwrite($stream, str_replace(["\r\n", "\r"], "\n", $text));
        rewind($stream);
        $headings = array_map(trim(...), array_map(strval(...), fgetcsv($stream, null, $mark, '"', '') ?: []));
        // Only in lists of our own: another program's apostrophe may be part of a password.
        $labels = array_map(static fn (Column $column): string => $column->label(), Column::cases());
        $read = $headings !== [] && array_diff($headings, $labels) === []
            ? CsvCell::unguarded(...)
            : static fn (string $cell): string => $cell;
        $rows = [];
        $line = 1 + substr_count((string) $first, "\n");
        while (($cells = fgetcsv($stream, null, $mark, '"', '')) !== false) {
            $line++;
            if ($cells === [null]) {
                continue;
            }
            if (count($rows) >= $most) {
                throw ListRefused::because("The list has more than $most rows. Import it in parts.");
            }
            $rows[] = [$line, array_map(static fn (?string $cell): string => $read((string) $cell), $cells)];
            $line += substr_count(implode('', array_map(strval(...), $cells)), "\n");
        }
        fclose($stream);

        return new self($headings, $rows);
    }

    private static function mark(string $line): string
    {
        $counts = ["\t" => substr_count($line, "\t"), ';' => substr_count($line, ';'), ',' => substr_count($line, ',')];
        arsort($counts);

        return (string) array_key_first($counts);
    }

    /**
     * @return array<int, Column> what each column is likely to mean, by its number; by heading, else by what stands
     *     in it
     */
    public function guess(): array
    {
        $guess = [];
        foreach ($this->headings as $number => $heading) {
            $column = Column::guess($heading);
            if ($column !== null && ! in_array($column, $guess, true)) {
                $guess[$number] = $column;
            }
        }
        foreach (array_keys($this->headings) as $number) {
            $column = isset($guess[$number]) ? null : $this->byContents($number);
            if ($column !== null && ! in_array($column, $guess, true)) {
                $guess[$number] = $column;
            }
        }
        ksort($guess);

        return $guess;
    }

    private function byContents(int $number): ?Column
    {
        $cells = array_filter(
            array_map(static fn (array $row): string => trim($row[1][$number] ?? ''), array_slice($this->rows, 0, 50)),
            static fn (string $cell): bool => $cell !== '',
        );
        $all = static fn (string $pattern): bool => $cells !== []
            && count(preg_grep($pattern, $cells) ?: []) === count($cells);

        return match (true) {
            $all('/\A(ftp|s?ftps?|sftp|ssh)\z/i') => Column::Protocol,
            $all('/\A(21|22|990|2121|2222)\z/') => Column::Port,
            $all('/\A\d{1,3}(\.\d{1,3}){3}\z/') => Column::Address,
            $all('/\A(s?ftps?:\/\/|s?ftp\d*\.|host|srv|server)/i') => Column::Host,
            default => null,
        };
    }
}
