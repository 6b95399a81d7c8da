<?php

declare(strict_types=1);

namespace Tests\Core\People;

use Cellarium\Core\Credential\Secret;
use Cellarium\Core\People\OneTimeCode;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class OneTimeCodeTest extends TestCase
{
    /** @return iterable<int, array{int, string}> the vectors of RFC 6238, appendix B, for SHA-1 */
    public static function vectors(): iterable
    {
        yield 59 => [59, '94287082'];
        yield 1_111_111_109 => [1_111_111_109, '07081804'];
        yield 1_111_111_111 => [1_111_111_111, '14050471'];
        yield 1_234_567_890 => [1_234_567_890, '89005924'];
        yield 2_000_000_000 => [2_000_000_000, '69279037'];
        yield 20_000_000_000 => [20_000_000_000, '65353130'];
    }

    #[DataProvider('vectors')]
    public function test_it_gives_the_codes_of_the_standard(int $at, string $code): void
    {
        self::assertSame($code, (new OneTimeCode(new Secret('12345678901234567890'), 8))->at($at));
    }

    public function test_a_code_of_the_step_before_and_after_is_taken_and_none_further_away(): void
    {
        $codes = OneTimeCode::make();
        $now = 1_800_000_015;
        self::assertSame(intdiv($now, 30) - 1, $codes->stepOf($codes->at($now - 30), $now, 0));
        self::assertSame(intdiv($now, 30) + 1, $codes->stepOf($codes->at($now + 30), $now, 0));
        self::assertNull($codes->stepOf($codes->at($now - 300), $now, 0));
        self::assertNull($codes->stepOf('', $now, 0));
    }

    public function test_a_code_is_taken_a_single_time(): void
    {
        $codes = OneTimeCode::make();
        $step = $codes->stepOf($codes->at(1_800_000_000), 1_800_000_000, 0);
        self::assertNotNull($step);
        self::assertNull($codes->stepOf($codes->at(1_800_000_000), 1_800_000_000, $step));
    }

    public function test_its_key_goes_into_an_app_and_comes_back_the_same(): void
    {
        $codes = OneTimeCode::fromBase32('jbswy3dpehpk3pxp');
        self::assertSame('JBSWY3DPEHPK3PXP', $codes->toBase32()->reveal());
        self::assertSame(
            'otpauth://totp/Cellarium:wren%40marramtide.example?secret=JBSWY3DPEHPK3PXP&issuer=Cellarium',
            $codes->uri('Cellarium', 'wren@marramtide.example')->reveal(),
        );
        $this->expectException(\InvalidArgumentException::class);
        OneTimeCode::fromBase32('not base 32!');
    }
}
