<?php

declare(strict_types=1);

namespace Tests\Core\Storage;

use Cellarium\Core\Storage\Mark;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Storage\StoreFault;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\Scratch;

/** A directory whose disk is not mounted looks like a new one but for its mark. */
final class MarkTest extends TestCase
{
    use Scratch;

    /** @return iterable<string, array{string|null, string}> what lies in the file, and what is said */
    public static function wrong(): iterable
    {
        yield 'nothing there' => [null, 'is not mounted'];
        yield 'an empty file' => ['', 'is not mounted'];
        yield 'torn' => ['{"version": 1, "iden', 'is not mounted'];
        yield 'no identity' => ['{"version": 1, "identity": "../../etc"}', 'is not mounted'];
        yield 'of a later version' => ['{"version": 2, "identity": "00112233445566778899aabbccddeeff"}', 'not mounted'];
        yield 'another' => ['{"version": 1, "identity": "00112233445566778899aabbccddee00"}', 'another installation'];
    }

    #[DataProvider('wrong')]
    public function test_what_is_not_its_own_is_told_with_what_to_do(?string $text, string $words): void
    {
        $own = $this->directory();
        $other = $this->directory();
        $mark = Mark::fromIdentity('00112233445566778899aabbccddeeff');
        $mark->putInto($own);
        $mark->mustBeIn([$own]);
        $text === null || file_put_contents("$other/".Mark::FILE, $text);
        try {
            $mark->mustBeIn([$own, $other]);
            self::fail('It was taken for its own.');
        } catch (StoreFailure $failure) {
            self::assertSame(StoreFault::NotOurs, $failure->fault);
            self::assertStringContainsString($other, $failure->getMessage());
            self::assertStringContainsString($words, $failure->getMessage());
            self::assertStringContainsString('Mount the disk', $failure->getMessage());
        }
    }
}
