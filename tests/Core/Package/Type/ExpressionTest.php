<?php

declare(strict_types=1);

namespace Tests\Core\Package\Type;

use Cellarium\Core\Package\Type\Expression;
use Cellarium\Core\Package\Type\ReadFrom;
use Cellarium\Core\Package\Type\TypeRefused;
use Cellarium\Core\Path\PathPattern;
use PHPUnit\Framework\TestCase;

final class ExpressionTest extends TestCase
{
    public function test_one_that_gives_up_is_told_and_not_taken_for_what_is_not_there(): void
    {
        $text = str_repeat('a', 40).'!';
        self::assertTrue(Expression::finds('~(a+)!~u', $text, $match));
        self::assertSame(str_repeat('a', 40), $match[1] ?? '');
        self::assertFalse(Expression::finds('~b~u', $text));
        foreach ([
            static fn (): bool => Expression::finds('~^(a+)+$~u', $text),
            static fn (): ?string => (new ReadFrom(new PathPattern('version'), '~^((?:a+)+)$~u'))->read($text),
        ] as $find) {
            try {
                $find();
                self::fail('It had an answer.');
            } catch (TypeRefused $refused) {
                self::assertStringContainsString('takes too many steps', $refused->getMessage());
            }
        }
    }
}
