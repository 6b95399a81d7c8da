<?php

declare(strict_types=1);

namespace App\Files;

use App\Failure\Problem;
use App\Models\Errand;
use App\Models\ErrandState;
use App\Storage\Spool;
use Cellarium\Core\Archive\ByteRange;
use RuntimeException;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** Bytes of a download for a browser, in ranges too: by the web server once all are here, until then as they come. */
final readonly class DownloadAnswer
{
    private const PIECE_BYTES = 1 << 18;

    private const LOOK_MICROSECONDS = 200_000;

    public function __construct(private Spool $spool)
    {
    }

    /**
     * @param  list<resource>  $room  held until all is sent, of one that is sent as it comes
     * @param  string  $range  the header Range; "" where there is none
     * @param  string  $ifRange  the header If-Range
     *
     * @throws Problem where it is gone by now
     */
    public function of(Errand $errand, array $room, string $range, string $ifRange): Response
    {
        /** @var array{file: string, size: int, named: string} $facts */
        $facts = $errand->result;
        $headers = [
            'Content-Type' => 'application/zip',
            'Content-Disposition' => $facts['named'],
            // The same bytes under the same name, for as long as it is there.
            'ETag' => "\"{$facts['file']}\"",
            'Cache-Control' => 'private, no-store',
        ];
        if ($errand->state === ErrandState::Done && $this->spool->file($facts['file']) !== null) {
            return new Response('', 200, $headers + ['X-Accel-Redirect' => "/downloaded/{$facts['file']}"]);
        }
        $bytes = $this->spool->reader($facts['file']) ?? throw new Problem(
            'What was downloaded is kept for an hour, and that is over, or it was stopped. Download it again.',
        );

        $size = $facts['size'];
        try {
            $asked = ByteRange::asked($range, $ifRange, $headers['ETag'], $size);
        } catch (\OutOfRangeException) {
            return new Response('', 416, ['Content-Range' => "bytes */$size"]);
        }

        return new StreamedResponse(
            static function () use ($errand, $bytes, $asked, $size, $room): void {
                self::send($errand, $bytes, $asked->from ?? 0, $asked?->bytes() ?? $size);
                array_map(fclose(...), [$bytes, ...$room]);
            },
            $asked === null ? 200 : 206,
            $headers + ['Accept-Ranges' => 'bytes', 'Content-Length' => (string) ($asked?->bytes() ?? $size)]
                + ($asked === null ? [] : ['Content-Range' => $asked->header()]),
        );
    }

    /**
     * @param  resource  $bytes
     *
     * @throws RuntimeException where no more come, so that what was sent never looks whole
     */
    private static function send(Errand $errand, $bytes, int $at, int $left): void
    {
        while ($left > 0) {
            // Asked before it is read: what came last has come by then.
            $piece = self::read($bytes, $at, $left);
            if ($piece === '' && ! self::isComing($errand) && ($piece = self::read($bytes, $at, $left)) === '') {
                throw new RuntimeException("The download of errand $errand->id ended after $at bytes: no more came.");
            }
            if ($piece === '') {
                usleep(self::LOOK_MICROSECONDS);

                continue;
            }
            echo $piece;
            flush();
            $at += strlen($piece);
            $left -= strlen($piece);
        }
    }

    /** @param  resource  $bytes */
    private static function read($bytes, int $at, int $left): string
    {
        // The end of a file that grows is another one each time.
        fseek($bytes, $at);

        return (string) fread($bytes, min($left, self::PIECE_BYTES));
    }

    private static function isComing(Errand $errand): bool
    {
        return Errand::whereKey($errand->id)->where('state', ErrandState::Running)->exists();
    }
}
