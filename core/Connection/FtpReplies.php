<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Credential\Secret;

/**
 * The replies of a server on the control connection. They stand by themselves, so that what libcurl calls holds no
 * connection: one that nobody uses any more is closed at once, and not when PHP next looks for circles.
 */
final class FtpReplies
{
    /** @var list<string> of the last request */
    public array $lines = [];

    /** What the server said when it let the login in (RFC 959, 230). */
    public ?string $welcome = null;

    /** When the server last said or took something, seconds on the system's clock that only goes forward. */
    public float $heard = 0.0;

    /** @return \Closure(\CurlHandle, string): int for CURLOPT_HEADERFUNCTION */
    public function listener(): \Closure
    {
        $replies = $this;

        return static function (\CurlHandle $curl, string $line) use ($replies): int {
            $reply = Secret::redact(rtrim($line, "\r\n"));
            $replies->lines[] = $reply;
            $replies->welcome = str_starts_with($line, '230 ') ? $reply : $replies->welcome;
            $replies->heard = hrtime(true) / 1e9;

            return strlen($line);
        };
    }

    public function last(): ?string
    {
        return $this->lines === [] ? null : $this->lines[count($this->lines) - 1];
    }

    /** @return list<string> with the welcome, which only the first request of a connection hears */
    public function withWelcome(): array
    {
        return $this->welcome === null || in_array($this->welcome, $this->lines, true)
            ? $this->lines
            : [$this->welcome, ...$this->lines];
    }

    /**
     * What came of pairs of RNFR and RNTO (RFC 959, 4.1.3) that were sent in one piece.
     *
     * @param  list<string>  $lines  the answers to them are the last
     * @return list<string|null> for each pair, what was said against it
     *
     * @throws RemoteFailure where there are fewer answers than questions
     */
    public static function ofRenames(array $lines, int $count): array
    {
        $isAnswer = static fn (string $line): bool => preg_match('/\A[1-5]\d\d(?: |\z)/', $line) === 1;
        $answers = array_values(array_filter($lines, $isAnswer));
        if (count($answers) < 2 * $count) {
            throw RemoteFailure::while('giving names', FailureReason::Disconnected);
        }
        $said = [];
        for ($at = count($answers) - 2 * $count; $at < count($answers); $at += 2) {
            [$from, $to] = [$answers[$at], $answers[$at + 1]];
            $said[] = match (true) {
                ! str_starts_with($from, '3') => $from,
                ! str_starts_with($to, '2') => $to,
                default => null,
            };
        }

        return $said;
    }
}
