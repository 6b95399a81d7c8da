<?php

declare(strict_types=1);

namespace Tests\Core\Connection;

use Cellarium\Core\Connection\HashCommand;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What servers say of hashes is read strictly; what is not understood is no hash. */
final class HashCommandTest extends TestCase
{
    private const SHA256 = '9f86d081884c7d659a2feaa0c55ad015a3bf4f1b2b0b822cd15d6c15b0f00a08';

    /** @return iterable<string, array{list<string>, HashCommand|null}> */
    public static function features(): iterable
    {
        yield 'the draft' => [['211-Features:', ' HASH CRC32;MD5;SHA-1;SHA-256*;SHA-512', ' XCRC'], HashCommand::Hash];
        yield 'the draft without SHA-256' => [['211-Features:', ' HASH SHA-1*;MD5', ' XMD5'], HashCommand::Md5];
        yield 'a forerunner' => [['211-', ' XCRC filename;start;end', ' XSHA256 filename'], HashCommand::Sha256];
        yield 'the weakest' => [['211-', ' XCRC'], HashCommand::Crc32];
        yield 'with the code on each line' => [['211-MDTM', '211-XMD5', '211 End'], HashCommand::Md5];
        yield 'none' => [['211-Features:', ' MDTM', ' SIZE', '211 End'], null];
        yield 'no FEAT' => [['500 Unknown command'], null];
        yield 'a name that only begins alike' => [['211-', ' XCRCX', ' XHASH'], null];
    }

    /** @param  list<string>  $replies */
    #[DataProvider('features')]
    public function test_the_surest_that_is_offered_is_used(array $replies, ?HashCommand $expected): void
    {
        self::assertSame($expected, HashCommand::offered($replies));
    }

    /** @return iterable<string, array{HashCommand, string, string|null}> */
    public static function replies(): iterable
    {
        $sha = self::SHA256;
        yield 'the draft' => [HashCommand::Hash, "213 SHA-256 0-49 $sha a file.txt", $sha];
        yield 'of another algorithm' => [HashCommand::Hash, "213 SHA-512 0-49 $sha a", null];
        yield 'of a part' => [HashCommand::Hash, "213 SHA-256 10-49 $sha a", null];
        yield 'refused' => [HashCommand::Hash, '550 a: No such file', null];
        yield 'a forerunner' => [HashCommand::Sha256, '250 '.strtoupper($sha), $sha];
        yield 'with words' => [HashCommand::Crc32, '250 XCRC successful: AB12CD34', 'ab12cd34'];
        yield 'with words and a blank' => [HashCommand::Crc32, '250 CRC is AB12CD34', 'ab12cd34'];
        yield 'too short' => [HashCommand::Md5, '250 AB12CD34', null];
        yield 'nothing' => [HashCommand::Md5, '', null];
    }

    #[DataProvider('replies')]
    public function test_a_reply_is_a_hash_or_it_is_not(HashCommand $command, string $reply, ?string $hex): void
    {
        self::assertSame($hex, $command->read($reply)?->hex);
    }
}
