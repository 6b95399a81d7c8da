<?php

declare(strict_types=1);

namespace Tests\Core\Credential;

use Cellarium\Core\Account\Endpoint;
use Cellarium\Core\Account\Protocol;
use Cellarium\Core\Credential\PasswordMaker;
use Cellarium\Core\Credential\PasswordStrength;
use Cellarium\Core\Credential\Secret;
use PHPUnit\Framework\TestCase;

final class CredentialTest extends TestCase
{
    private const KNOWN = 'tide-Table-4711';

    public function test_a_secret_shows_itself_nowhere(): void
    {
        $endpoint = new Endpoint('host.example', 21, Protocol::Ftp, 'login', new Secret(self::KNOWN));
        ob_start();
        var_dump($endpoint);
        $shown = ob_get_clean().print_r($endpoint, true).var_export($endpoint, true).json_encode($endpoint).print_r((array) $endpoint->password, true);
        try {
            $shown .= serialize($endpoint);
            self::fail('It was serialised.');
        } catch (\LogicException $refused) {
            $shown .= $refused;
        }
        self::assertStringNotContainsString(self::KNOWN, $shown);
        self::assertSame(self::KNOWN, $endpoint->password->reveal());
    }

    public function test_made_passwords_are_strong_and_can_be_read_out(): void
    {
        $made = [];
        for ($count = 0; $count < 200; $count++) {
            $password = (new PasswordMaker)->make()->reveal();
            self::assertMatchesRegularExpression('/\A[2-9a-hjkmnp-zA-HJ-NP-Zi]{4}(-[2-9a-hjkmnp-zA-HJ-NP-Zi]{4}){3}\z/', $password);
            self::assertDoesNotMatchRegularExpression('/[01lIO]/', $password);
            $made[$password] = true;
        }
        self::assertCount(200, $made);
        self::assertSame(92, PasswordMaker::bits());
    }

    public function test_strength_counts_what_is_hard_to_guess(): void
    {
        self::assertLessThan(30, PasswordStrength::bits('password1'));
        self::assertLessThan(20, PasswordStrength::bits('aaaaaaaaaaaaaaaa'));
        self::assertLessThan(30, PasswordStrength::bits('abcdefghijklmnop'));
        self::assertLessThan(PasswordStrength::MINIMUM_BITS, PasswordStrength::bits('Summer2026!'));
        self::assertGreaterThan(PasswordStrength::MINIMUM_BITS, PasswordStrength::bits('vK7-mubel-Tarn-40q'));
        self::assertSame(0, PasswordStrength::bits(''));
    }
}
