<?php

declare(strict_types=1);

namespace Tests\Core\Upload;

use Cellarium\Core\Upload\PartialFile;
use Cellarium\Core\Upload\UploadChecksum;
use Cellarium\Core\Upload\UploadMetadata;
use Cellarium\Core\Upload\UploadRefusal;
use Cellarium\Core\Upload\UploadRefused;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\Scratch;

final class PartialFileTest extends TestCase
{
    use Scratch;

    private string $path;

    private PartialFile $file;

    protected function setUp(): void
    {
        $this->path = $this->directory().'/arriving/x';
        $this->file = new PartialFile($this->path, 10);
        $this->file->begin();
    }

    private static function sum(string $bytes): UploadChecksum
    {
        return UploadChecksum::fromString('sha256 '.base64_encode(hash('sha256', $bytes, true)));
    }

    public function test_it_comes_in_pieces_and_is_whole_then(): void
    {
        self::assertSame(4, $this->file->append(0, ['ab', 'cd'], self::sum('abcd')));
        self::assertFalse($this->file->isWhole());
        self::assertSame(4, (new PartialFile($this->path, 10))->offset());
        self::assertSame(10, $this->file->append(4, ['efghij'], null));
        self::assertTrue($this->file->isWhole());
        self::assertSame('abcdefghij', file_get_contents($this->path));
    }

    /** @return iterable<string, array{int, string, string|null, UploadRefusal}> */
    public static function refused(): iterable
    {
        yield 'another offset' => [3, 'ef', null, UploadRefusal::OtherOffset];
        yield 'more than announced' => [4, 'efghijk', null, UploadRefusal::TooMuch];
        yield 'other bytes than were sent' => [4, 'ef', 'eg', UploadRefusal::ChecksumMismatch];
    }

    #[DataProvider('refused')]
    public function test_what_is_not_taken_leaves_what_was_there(
        int $offset,
        string $bytes,
        ?string $sent,
        UploadRefusal $reason,
    ): void {
        $this->file->append(0, ['abcd'], null);
        try {
            $this->file->append($offset, [$bytes], $sent === null ? null : self::sum($sent));
            self::fail('It was taken.');
        } catch (UploadRefused $refused) {
            self::assertSame($reason, $refused->reason);
        }
        self::assertSame('abcd', file_get_contents($this->path));
    }

    public function test_two_at_once_do_not_mix(): void
    {
        $chunks = function (): \Generator {
            yield 'ab';
            try {
                (new PartialFile($this->path, 10))->append(0, ['xy'], null);
                self::fail('Both were taken.');
            } catch (UploadRefused $refused) {
                self::assertSame(UploadRefusal::Busy, $refused->reason);
            }
            yield 'cd';
        };

        self::assertSame(4, $this->file->append(0, $chunks(), null));
        self::assertSame('abcd', file_get_contents($this->path));
    }

    public function test_what_arrived_before_a_connection_broke_off_stays(): void
    {
        $breaks = static function (): \Generator {
            yield 'abc';
            throw new \LogicException('The connection broke off.');
        };
        try {
            $this->file->append(0, $breaks(), null);
        } catch (\LogicException) {
        }
        self::assertSame(3, $this->file->offset());
    }

    public function test_headers_are_read_strictly(): void
    {
        self::assertSame(
            ['filename' => 'größe.zip', 'site' => '7', 'empty' => ''],
            UploadMetadata::parse('filename '.base64_encode('größe.zip').', site Nw==,empty'),
        );
        self::assertSame([], UploadMetadata::parse(''));
        foreach (['filename *', ' ,', 'a YQ==,a YQ=='] as $header) {
            try {
                UploadMetadata::parse($header);
                self::fail("$header was understood.");
            } catch (UploadRefused $refused) {
                self::assertSame(UploadRefusal::NotUnderstood, $refused->reason);
            }
        }
        foreach (['sha256', 'crc32 AAAA', 'sha256 AAAA', 'sha1 *'] as $header) {
            try {
                UploadChecksum::fromString($header);
                self::fail("$header was understood.");
            } catch (UploadRefused $refused) {
                self::assertSame(UploadRefusal::NotUnderstood, $refused->reason);
            }
        }
    }
}
