<?php

declare(strict_types=1);

namespace Tests\Core\Intake;

use Cellarium\Core\Intake\AccountList;
use Cellarium\Core\Intake\AccountRow;
use Cellarium\Core\Intake\Column;
use Cellarium\Core\Intake\CsvCell;
use Cellarium\Core\Intake\ListRefused;
use Cellarium\Core\Intake\Rehearsal;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class AccountListTest extends TestCase
{
    /** @return iterable<string, array{string, array<int, string>}> */
    public static function headings(): iterable
    {
        yield 'commas' => ["Client,Host,User name,Password\n", ['client', 'host', 'login', 'password']];
        yield 'semicolons and marks' => [
            "Customer;FTP-Server;FTP User;FTP_Password;Web directory\n",
            ['client', 'host', 'login', 'password', 'document_root'],
        ];
        yield 'tabs and a byte order mark' => ["\xEF\xBB\xBFclient\thost\tlogin\n", ['client', 'host', 'login']];
        yield 'by what stands below' => [
            "client,a,b,login\nKelpie,ftp.x.example,990,k\nOstrea,ftp.y.example,21,o\n",
            ['client', 'host', 'port', 'login'],
        ];
        yield 'twice the same heading' => ["client,host,server,login\n", [0 => 'client', 1 => 'host', 3 => 'login']];
        yield 'Windows-1252' => ["Kunde,Host,Login,Note\nCaf\xe9,h,l,x\n", [1 => 'host', 2 => 'login', 3 => 'notes']];
    }

    /** @param  array<int, string>  $expected */
    #[DataProvider('headings')]
    public function test_columns_are_guessed(string $text, array $expected): void
    {
        self::assertSame(
            $expected,
            array_map(static fn (Column $column): string => $column->value, AccountList::read($text)->guess()),
        );
    }

    public function test_what_would_be_a_formula_is_guarded_and_comes_back_as_it_was(): void
    {
        foreach (['=1+1', '+49 30', '-dash', '@sum', "\tx", '＝1', "'=1", "''-x"] as $text) {
            self::assertSame("'$text", CsvCell::guarded($text));
            self::assertSame($text, CsvCell::unguarded("'$text"));
        }
        foreach (['plain', "it's", "'quoted", '', '1+1'] as $text) {
            self::assertSame($text, CsvCell::guarded($text));
            self::assertSame($text, CsvCell::unguarded($text));
        }
        $own = implode(
            ',',
            array_map(static fn (Column $column): string => $column->label(), [
                Column::Client,
                Column::Host,
                Column::Login,
                Column::Password,
            ]),
        );
        self::assertSame('=secret', AccountList::read("$own\nKelpie,h.example,k,'=secret\n")->rows[0][1][3]);
        self::assertSame(
            "'=secret",
            AccountList::read("Kunde,Host,Login,Passwort\nKelpie,h.example,k,'=secret\n")->rows[0][1][3],
            'of another program',
        );
    }

    public function test_cells_keep_line_breaks_quotes_and_their_line_number(): void
    {
        $list = AccountList::read(
            "client,host,login,notes\r\n\r\n\"Thrift, Campion\",h.example,l,\"two\nlines "
                ."\"\"quoted\"\"\"\r\nKelpie,k.example,k,\r\n",
        );
        self::assertSame(
            [
                [3, ['Thrift, Campion', 'h.example', 'l', "two\nlines \"quoted\""]],
                [5, ['Kelpie', 'k.example', 'k', '']],
            ],
            $list->rows,
        );
    }

    public function test_what_is_no_list_is_refused(): void
    {
        $this->expectException(ListRefused::class);
        AccountList::read("  \n");
    }

    /** @return iterable<string, array{string, string|null, array<string, mixed>}> */
    public static function rows(): iterable
    {
        yield 'cleaned' => [
            ' Kelpie ,https://www.Ftp.Example.example:2121/x,,,KeLp,Pw-1',
            null,
            [
                'client' => 'Kelpie',
                'host' => 'ftp.example.example',
                'port' => 2121,
                'protocol' => 'ftps',
                'login' => 'KeLp',
                'password' => 'Pw-1',
            ],
        ];
        yield 'SFTP by its port' => ['K,h.example,22,,l,p', null, ['port' => 22, 'protocol' => 'sftp']];
        yield 'plain FTP by name' => ['K,h.example,,FTP,l,p', null, ['port' => 21, 'protocol' => 'ftp']];
        yield 'an address says it' => ['K,sftp://h.example,,,l,p', null, ['port' => 22, 'protocol' => 'sftp']];
        yield 'no host' => ['K,,,,l,p', 'The host is missing.', []];
        yield 'several faults' => [
            ',not a host,99999,gopher,,p',
            '"not a host" is not a host; "gopher" is not a protocol; "99999" is not a port; the login is missing; the '
                .'client is missing.',
            [],
        ];
    }

    /** @param  array<string, mixed>  $values */
    #[DataProvider('rows')]
    public function test_a_row_is_cleaned_or_refused_with_all_its_faults(
        string $line,
        ?string $refusal,
        array $values,
    ): void {
        $list = AccountList::read("client,host,port,protocol,login,password\n$line\n");
        $row = AccountRow::read($list->rows[0][0], $list->rows[0][1], $list->guess());
        self::assertSame($refusal, $row->refusal);
        self::assertEquals($values, array_intersect_key($row->values, $values));
    }

    public function test_a_rehearsal_says_for_each_row_what_would_be_done(): void
    {
        $list = AccountList::read(
            implode("\n", [
                'client,host,login,password,domain,document_root,notes',
                'Kelpie,ftp.a.example,kelpie,known,kelpie.example,/htdocs,old',
                'Kelpie,ftp.a.example,second,new-1,,,',
                'Kelpie,ftp.a.example,second,new-1,two.example,/two,',
                'Ostrea,ftp.a.example,ostrea,changed,ostrea.example,/moved,',
                'Thrift,ftp.a.example,thrift,,,,',
                'Thrift,ftp.a.example,other,x1,kelpie.example,,',
                'Kelpie,ftp.a.example,second,new-1,,,',
                'Gannet,ftp.b.example,gannet,y1,two.example,,',
                'Gannet,ftp.b.example,gannet,y1,curlew.example,,',
            ])."\n",
        );
        $facts = static fn (string $client, string $password, array $roots, string $notes): array => [
            'client' => $client,
            'protocol' => 'ftps',
            'notes' => $notes,
            'document_root' => $roots,
            'password' => static fn (string $typed): bool => $typed === $password,
        ];
        $known = [
            AccountRow::keyOf('ftp.a.example', 21, 'kelpie') => $facts(
                'Kelpie',
                'known',
                ['kelpie.example' => '/htdocs'],
                'old',
            ),
            AccountRow::keyOf('ftp.a.example', 21, 'ostrea') => $facts(
                'Ostrea',
                'before',
                ['ostrea.example' => '/www'],
                'n',
            ),
        ];
        $rehearsal = Rehearsal::fromList(
            $list,
            $list->guess(),
            $known,
            [
                'kelpie.example' => AccountRow::keyOf('ftp.a.example', 21, 'kelpie'),
                'ostrea.example' => AccountRow::keyOf('ftp.a.example', 21, 'ostrea'),
                'curlew.example' => 'elsewhere',
            ],
        );
        self::assertSame(
            [
                ['same', ''],
                ['new', ''],
                ['changed', 'another site of the account in line 3: two.example'],
                ['changed', 'password, document root'],
                ['refused', 'The password is missing, and the account is not known yet.'],
                ['refused', 'The domain kelpie.example stands in line 2 already.'],
                ['refused', 'The same account stands in line 3 already.'],
                ['refused', 'The domain two.example stands in line 4 already.'],
                ['refused', 'The domain curlew.example belongs to another account.'],
            ],
            array_map(static fn (array $row): array => [$row['verdict']->value, $row['words']], $rehearsal->rows),
        );
        self::assertSame([
            'new' => 1,
            'same' => 1,
            'changed' => 2,
            'refused' => 5,
        ], $rehearsal->counts());
        self::assertTrue($rehearsal->isRefused());
    }
}
