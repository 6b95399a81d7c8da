<?php

declare(strict_types=1);

namespace Tests\Core\Hosting;

use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Hosting\InstructionSheet;
use Cellarium\Core\Hosting\LoginRules;
use Cellarium\Core\Json\JsonFields;
use PHPUnit\Framework\TestCase;

final class LoginRulesTest extends TestCase
{
    public function test_names_are_held_to_what_the_host_takes(): void
    {
        $rules = LoginRules::fromForm('acc_{name}', 'a-z0-9_-', 12, 3);
        foreach (
            [
                'north-build' => null,
                '9' => null,
                '' => 'needs a name',
                ' x' => 'a blank',
                'North' => 'a to z, 0 to 9 and _ -',
                'a.b' => 'a to z',
                '-x' => 'begins with',
                'thirteen-long' => 'has 13 characters',
                'taken' => 'acc_taken exists already',
                'ä' => 'a to z',
            ] as $name => $words
        ) {
            $said = $rules->objection((string) $name, ['acc_taken', 'acc_TAKEN2']);
            $words === null
                ? self::assertNull($said, (string) $name)
                : self::assertStringContainsString($words, (string) $said, (string) $name);
        }
        self::assertStringContainsString(
            'exists already',
            (string) $rules->objection('taken2', ['acc_TAKEN2']),
            'many hosts do not tell capitals apart',
        );
        self::assertStringContainsString('makes no more', (string) $rules->objection('new', ['a', 'b', 'c']));
        self::assertSame(
            ['acc_new', 'new', 'other@x'],
            [$rules->full('new'), $rules->nameIn('acc_new'), $rules->nameIn('other@x')],
        );
        self::assertEquals($rules, LoginRules::fromFields(new JsonFields($rules->toArray())));
    }

    public function test_rules_that_are_none_are_refused_whoever_sends_them(): void
    {
        foreach (
            [
                ['no name', 'a-z'],
                ['{name}{name}', 'a-z'],
                ['{name}@x y', 'a-z'],
                ['{name}', 'a-z]|.*['],
                ['{name}', '^a'],
                ['{name}', ''],
                ['{name}', '\\d'],
            ] as [$form, $signs]
        ) {
            try {
                LoginRules::fromForm($form, $signs);
                self::fail("$form $signs");
            } catch (\InvalidArgumentException) {
                self::assertTrue(true);
            }
        }
    }

    public function test_the_sheet_holds_every_field_and_hides_the_password_from_dumps(): void
    {
        $sheet = InstructionSheet::create(
            'Northquay',
            'job',
            'job@site.example',
            new Secret('Known-4711'),
            '/www/site',
            200_000_000,
            true,
        );
        self::assertSame(
            [
                'Name' => 'job',
                'Full login, to compare' => 'job@site.example',
                'Directory' => '/www/site',
                'Space limit' => '200 MB',
                'Permissions' => 'read only',
            ],
            $sheet->fields,
        );
        self::assertStringContainsString('Sign in at Northquay', $sheet->steps[0]);
        self::assertStringNotContainsString('Known-4711', print_r($sheet, true));
    }
}
