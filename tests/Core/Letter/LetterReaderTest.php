<?php

declare(strict_types=1);

namespace Tests\Core\Letter;

use Cellarium\Core\Letter\Fact;
use Cellarium\Core\Letter\LetterAccount;
use Cellarium\Core\Letter\LetterReader;
use Cellarium\Core\Letter\LetterText;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Made-up welcome letters, one a file: the letter, a line of equals signs, and what it says as JSON. */
final class LetterReaderTest extends TestCase
{
    /** @return iterable<string, array{string, list<array<string, string|int|null>>}> */
    public static function letters(): iterable
    {
        foreach (glob(__DIR__.'/letters/*.txt') ?: [] as $file) {
            [$letter, $facts] = explode("\n=====\n", (string) file_get_contents($file));
            yield basename($file, '.txt') => [$letter, json_decode($facts, true, 8, JSON_THROW_ON_ERROR)];
        }
    }

    /** @return array<string, string|int|null> */
    private static function facts(LetterAccount $account): array
    {
        $facts = [];
        foreach (['host', 'port', 'protocol', 'login', 'password', 'directory', 'domain', 'address'] as $name) {
            $facts[$name] = $name === 'port' ? $account->port() : $account->value(Fact::from($name));
        }

        return $facts;
    }

    /** @param  list<array<string, string|int|null>>  $expected */
    #[DataProvider('letters')]
    public function test_every_fact_is_right_or_said_to_be_unsure(string $letter, array $expected): void
    {
        $accounts = LetterReader::read($letter);
        self::assertCount(count($expected), $accounts, 'accounts');
        $text = LetterText::of($letter);
        foreach ($accounts as $index => $account) {
            foreach (self::facts($account) as $name => $value) {
                if (! isset($account->unsure()[$name])) {
                    self::assertSame($expected[$index][$name], $value, $name);
                }
            }
            foreach ($account->found as $name => $found) {
                // The piece it was read from holds it, but for what cleaning is said to have changed.
                $piece = substr($text, $found->from, $found->length);
                $found->changes !== [] || in_array($name, ['protocol', 'port'], true) || self::assertStringContainsString($found->value, $piece, $name);
            }
        }
    }

    public function test_doubt_is_rare(): void
    {
        $facts = $right = 0;
        foreach (self::letters() as [$letter, $expected]) {
            foreach (LetterReader::read($letter) as $index => $account) {
                foreach (self::facts($account) as $name => $value) {
                    $facts += $expected[$index][$name] === null ? 0 : 1;
                    $right += $expected[$index][$name] !== null && $value === $expected[$index][$name] ? 1 : 0;
                }
            }
        }
        self::assertGreaterThan(180, $facts);
        self::assertGreaterThanOrEqual(0.98, $right / $facts, "$right of $facts are right");
    }

    public function test_cleaning_says_what_it_changed_and_leaves_case_alone(): void
    {
        $account = LetterReader::read("FTP\nServer: https://www.Site.example:2121/admin,\nLogin: \u{201C}KeLpIe\u{201D}\nPassword:\u{A0}Ab\u{200B}C\u{A0}\n")[0];
        self::assertSame(['site.example', 2121, 'KeLpIe', 'AbC'], [$account->value(Fact::Host), $account->port(), $account->value(Fact::Login), $account->value(Fact::Password)]);
        $said = implode("\n", $account->changes());
        foreach (['host: scheme https:// taken off', 'host: path /admin, taken off', 'host: port 2121 taken out of the host', 'host: put in small letters', 'host: prefix www. taken off', 'login: quotes around it taken off', 'password: invisible characters taken out'] as $change) {
            self::assertStringContainsString($change, $said);
        }
    }

    public function test_a_letter_without_an_account_gives_none(): void
    {
        foreach (['', "Dear client,\n\nthank you for your order.\n\nKind regards", "E-mail\nServer: mail.host.example\nUser: a@b.example\nPassword: x1y2z3", str_repeat('User: ', 5000)] as $letter) {
            self::assertSame([], LetterReader::read($letter));
        }
    }

    public function test_the_password_hides_from_dumps(): void
    {
        $account = LetterReader::read("FTP\nHost: ftp.x.example\nLogin: a\nPassword: Known-Secret-1")[0];
        self::assertStringNotContainsString('Known-Secret-1', print_r($account, true));
        self::assertSame('Known-Secret-1', $account->password()?->reveal());
    }
}
