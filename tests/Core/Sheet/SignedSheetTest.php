<?php

declare(strict_types=1);

namespace Tests\Core\Sheet;

use Cellarium\Core\Outage\Outage;
use Cellarium\Core\Sheet\ClientSheet;
use Cellarium\Core\Sheet\SheetAccess;
use Cellarium\Core\Sheet\SheetBackup;
use Cellarium\Core\Sheet\SheetChange;
use Cellarium\Core\Sheet\SheetCover;
use Cellarium\Core\Sheet\SheetFault;
use Cellarium\Core\Sheet\SheetKey;
use Cellarium\Core\Sheet\SheetKind;
use Cellarium\Core\Sheet\SheetProof;
use Cellarium\Core\Sheet\SheetRefused;
use Cellarium\Core\Sheet\SheetSite;
use Cellarium\Core\Sheet\SignedSheet;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\Scratch;

final class SignedSheetTest extends TestCase
{
    use Scratch;

    private const DAY = 1_800_000_000;

    private static function sheet(): ClientSheet
    {
        return new ClientSheet(
            'Marram & Tide',
            '#1c6b64',
            'Saltmarsh Ferries',
            new SheetCover(self::DAY, self::DAY + 86_400, 'Europe/Berlin', 7),
            'Aldous Marram',
            self::DAY + 90_000,
            12,
            str_repeat('ab', 32),
            [new SheetSite('ferries.example', 'every day', false, 2, self::DAY + 100, null, self::DAY + 200)],
            [
                new SheetChange(
                    self::DAY + 100,
                    'ferries.example',
                    SheetKind::Deployed,
                    'ferries 1.2 “Spring”',
                    'Aldous Marram',
                    'live and proven',
                    true,
                    3,
                    1,
                    0,
                    new SheetBackup(4, 30, 4000, self::DAY + 50),
                    new SheetProof(4, 4, 4, 1),
                    new Outage(250, 12, 1, words: 'answered 503'),
                ),
                new SheetChange(
                    self::DAY + 200,
                    'ferries.example',
                    SheetKind::ByNobodyHere,
                    'Found changed: img/.x.php',
                    '',
                    'found by backup 5',
                    false,
                    1,
                    0,
                    0,
                ),
            ],
            [
                new SheetAccess('ferries', 'the account itself', '/', '', self::DAY - 1000, isAccount: true),
                new SheetAccess('a@ferries', '', '/www', 'Aldous Marram', self::DAY, self::DAY + 300, self::DAY, null),
            ],
        );
    }

    public function test_what_is_signed_reads_back_as_it_was_and_holds(): void
    {
        $key = SheetKey::generate();
        $signed = SignedSheet::sign(self::sheet(), $key);
        $read = SignedSheet::fromJson($signed->toJson());
        self::assertEquals(self::sheet(), $read->sheet);
        self::assertSame($signed->toJson(), $read->toJson());
        $read->verify($key->public());
        // However a program on the way has written it.
        $other = json_encode(json_decode($signed->toJson(), false, 64, JSON_THROW_ON_ERROR), JSON_THROW_ON_ERROR);
        SignedSheet::fromJson($other)->verify($key->public());
        self::assertStringNotContainsString("\n", $other);
    }

    public function test_anybody_can_check_it_with_libsodium_alone(): void
    {
        $key = SheetKey::generate();
        $file = json_decode(SignedSheet::sign(self::sheet(), $key)->toJson(), true);
        $sorted = static function (array $fields) use (&$sorted): array {
            array_is_list($fields) || ksort($fields, SORT_STRING);

            return array_map(static fn (mixed $one): mixed => is_array($one) ? $sorted($one) : $one, $fields);
        };
        self::assertTrue(sodium_crypto_sign_verify_detached(
            (string) base64_decode($file['signature']['value'], true),
            (string) json_encode($sorted($file['sheet']), JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE),
            (string) base64_decode($file['signature']['key'], true),
        ));
    }

    /** @param  \Closure(string): string  $alter */
    #[DataProvider('alterings')]
    public function test_what_was_altered_is_refused(\Closure $alter, SheetFault $fault): void
    {
        $key = SheetKey::generate();
        $altered = $alter(SignedSheet::sign(self::sheet(), $key)->toJson());
        try {
            SignedSheet::fromJson($altered)->verify($key->public());
            self::fail('It was taken for what was signed.');
        } catch (SheetRefused $refused) {
            self::assertSame($fault, $refused->fault);
        }
    }

    /** @return array<string, array{\Closure(string): string, SheetFault}> */
    public static function alterings(): array
    {
        $swap = static fn (string $from, string $to): \Closure => static fn (string $json): string => str_replace(
            $from,
            $to,
            $json,
        );

        return [
            'an outage made shorter' => [$swap('"milliseconds": 250', '"milliseconds": 25'), SheetFault::Altered],
            'a fact more' => [$swap('"agency":', '"paid": true, "agency":'), SheetFault::Altered],
            'a number as text' => [$swap('"number": 4', '"number": "4"'), SheetFault::NotASheet],
            'a number with a fraction' => [$swap('"agency":', '"x": 1.5, "agency":'), SheetFault::NotASheet],
            'a bit of the signature' => [
                static fn (string $json): string => (string) preg_replace_callback(
                    '/"value": "(.)/',
                    static fn (array $found): string => '"value": "'.($found[1] === 'A' ? 'B' : 'A'),
                    $json,
                ),
                SheetFault::Altered,
            ],
            'no signature' => [$swap('"Ed25519"', '"none"'), SheetFault::NotASheet],
            'a key cut off' => [$swap('"key": "', '"key": "AA'), SheetFault::NotASheet],
            'cut off' => [static fn (string $json): string => substr($json, 0, -40), SheetFault::NotASheet],
            'a colour that is more than one' => [$swap('#1c6b64', 'url(x)'), SheetFault::NotASheet],
            'another kind of file' => [static fn (): string => '[1, 2]', SheetFault::NotASheet],
            'nested without end' => [static fn (): string => str_repeat('[', 100_000), SheetFault::NotASheet],
        ];
    }

    public function test_what_somebody_else_has_signed_is_told_apart(): void
    {
        $signed = SignedSheet::sign(self::sheet(), SheetKey::generate());
        try {
            $signed->verify(SheetKey::generate()->public());
            self::fail('Anybody may sign.');
        } catch (SheetRefused $refused) {
            self::assertSame(SheetFault::Foreign, $refused->fault);
        }
    }

    public function test_the_key_lies_in_a_file_for_its_owner_and_shows_itself_nowhere(): void
    {
        $scratch = $this->directory();
        $key = SheetKey::generate();
        $key->write("$scratch/keys/sheets.json");
        self::assertSame($key->public(), SheetKey::read("$scratch/keys/sheets.json")->public());
        self::assertSame(0600, fileperms("$scratch/keys/sheets.json") & 0777);
        $secret = json_decode((string) file_get_contents("$scratch/keys/sheets.json"), true)['ed25519'];
        self::assertStringNotContainsString(substr($secret, 0, 64), print_r($key, true));
        self::assertStringNotContainsString(substr($secret, 0, 64), SignedSheet::sign(self::sheet(), $key)->toJson());
    }

    public function test_the_sums_are_of_what_was_measured_only(): void
    {
        $sheet = self::sheet();
        self::assertSame(250, $sheet->outage());
        self::assertSame(0, $sheet->unmeasured());
        self::assertCount(1, $sheet->users());
        self::assertSame('closed; not proven to be refused', $sheet->users()[0]->proof());
    }
}
