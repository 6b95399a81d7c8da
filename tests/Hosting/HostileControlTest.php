<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Hosting\ControlFault;
use Cellarium\Core\Hosting\LinkedControl;
use Cellarium\Core\Hosting\UserChange;
use Cellarium\Core\Web\CurlWebClient;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\Scratch;

/** A control service that answers what it should not: it is not understood, and nothing of it is believed. */
final class HostileControlTest extends TestCase
{
    use Scratch;

    private const HEAD = "HTTP/1.1 200 OK\r\nContent-Type: application/json\r\nConnection: close\r\n";

    /** @return iterable<string, array{string, \Closure(LinkedControl): mixed}> the body and what is asked */
    public static function answers(): iterable
    {
        $user = [
            'login' => 'job',
            'directory' => '/www',
            'space_limit' => null,
            'open' => false,
        ];
        $users = static fn (array $change): string => (string) json_encode(['ftp_users' => [$change + $user]]);
        $all = static fn (LinkedControl $control): array => $control->ftpUsers();
        yield 'a login with a line break' => [$users(['login' => "job\r\nDELE x"]), $all];
        yield 'a login of ten thousand letters' => [$users(['login' => str_repeat('a', 10_000)]), $all];
        yield 'no login' => [$users(['login' => null]), $all];
        yield 'open, in a word' => [$users(['open' => 'no']), $all];
        yield 'a space limit that is none' => [$users(['space_limit' => '12']), $all];
        yield 'no JSON' => ['<html>sign in</html>', $all];
        yield 'rules that are a pattern of their own' => [
            (string) json_encode([
                'space' => ['used' => 1, 'limit' => 2],
                'ftp_users' => [
                    'login' => '{name}',
                    'signs' => 'a-z]|(a+)+$|[',
                    'longest' => 9,
                    'most' => null,
                    'read_only' => false,
                ],
            ]),
            static fn (LinkedControl $control): mixed => $control->loginRules(),
        ];
        yield 'still open after it was closed' => [
            (string) json_encode(['open' => true] + $user),
            static fn (LinkedControl $control): mixed => $control->changeFtpUser('job', new UserChange(open: false)),
        ];
    }

    /** @param  \Closure(LinkedControl): mixed  $ask */
    #[DataProvider('answers')]
    public function test_it_is_not_understood(string $body, \Closure $ask): void
    {
        $this->assertNotUnderstood(
            static fn ($peer): mixed => fwrite($peer, self::HEAD.'Content-Length: '.strlen($body)."\r\n\r\n$body"),
            $ask,
        );
    }

    public function test_where_it_leads_elsewhere_nobody_follows_and_the_token_goes_nowhere(): void
    {
        $elsewhere = stream_socket_server('tcp://127.0.0.1:0');
        self::assertNotFalse($elsewhere);
        $there = stream_socket_get_name($elsewhere, false);
        foreach ([301, 302, 303, 307, 308] as $status) {
            $body = '{"ftp_users":[]}';
            $this->assertNotUnderstood(
                static fn ($peer): mixed => fwrite($peer, "HTTP/1.1 $status Elsewhere\r\nLocation: http://$there/\r\n"
                    .'Content-Length: '.strlen($body)."\r\nConnection: close\r\n\r\n$body"),
                static fn (LinkedControl $control): array => $control->ftpUsers(),
            );
        }
        self::assertFalse(@stream_socket_accept($elsewhere, 0.0));
    }

    public function test_an_answer_that_never_ends_is_broken_off_before_it_fills_the_memory(): void
    {
        $before = memory_get_peak_usage();
        $this->assertNotUnderstood(
            static function ($peer): void {
                fwrite($peer, self::HEAD."\r\n");
                while (@fwrite($peer, str_repeat(' ', 100_000)) > 0);
            },
            static fn (LinkedControl $control): array => $control->ftpUsers(),
        );
        self::assertLessThan($before + 70_000_000, memory_get_peak_usage());
    }

    /**
     * @param  \Closure(resource): mixed  $answer  what the host does when it was asked
     * @param  \Closure(LinkedControl): mixed  $ask
     */
    private function assertNotUnderstood(\Closure $answer, \Closure $ask): void
    {
        $server = stream_socket_server('tcp://127.0.0.1:0');
        self::assertNotFalse($server);
        $child = pcntl_fork();
        if ($child === 0) {
            $peer = stream_socket_accept($server, 10);
            if ($peer !== false) {
                fread($peer, 8192);
                $answer($peer);
                fclose($peer);
            }
            posix_kill(posix_getpid(), SIGKILL); // Without PHPUnit's own ending.
        }
        try {
            $ask(
                new LinkedControl(
                    'http://'.stream_socket_get_name($server, false),
                    new Secret('any'),
                    new CurlWebClient(static fn (): ?string => null),
                ),
            );
            self::fail('It was believed.');
        } catch (ControlFailure $failure) {
            self::assertSame([ControlFault::NotUnderstood, false], [$failure->reason, $failure->reason->isCertain()]);
            self::assertLessThan(700, strlen($failure->getMessage()));
        } finally {
            fclose($server);
            pcntl_waitpid($child, $status);
        }
    }
}
