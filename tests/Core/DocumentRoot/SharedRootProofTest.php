<?php

declare(strict_types=1);

namespace Tests\Core\DocumentRoot;

use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\DocumentRoot\OtherLogin;
use Cellarium\Core\DocumentRoot\SharedRoot;
use Cellarium\Core\DocumentRoot\SharedRootProof;
use Cellarium\Core\Path\RemotePath;
use PHPUnit\Framework\TestCase;
use Tests\Support\FaultyDirectory;
use Tests\Support\LocalRemoteDirectory;
use Tests\Support\Scratch;

/** A token put through one login is looked for through others. */
final class SharedRootProofTest extends TestCase
{
    use Scratch;

    private string $server;

    protected function setUp(): void
    {
        $this->server = $this->directory();
        mkdir("$this->server/home/a/public", 0755, true);
        mkdir("$this->server/home/b/public", 0755, true);
    }

    private static function path(string $path): RemotePath
    {
        return RemotePath::fromString($path);
    }

    private function login(int $key, string $jail, string ...$known): OtherLogin
    {
        return new OtherLogin(
            $key,
            'host.example',
            new LocalRemoteDirectory($this->server.$jail),
            SharedRootProof::candidates(self::path('/home/a/public'), array_map(self::path(...), array_values($known))),
        );
    }

    /** @return list<string|null> where each of some logins has it */
    private function find(OtherLogin ...$others): array
    {
        $found = SharedRootProof::find(
            new LocalRemoteDirectory($this->server),
            self::path('/home/a/public'),
            'k2j4h6g8f0',
            array_values($others),
        );
        self::assertSame([], glob("$this->server/home/*/*/*") ?: [], 'the token is gone');

        return array_map(static fn (SharedRoot $shared): ?string => $shared->place?->toString(), $found);
    }

    public function test_a_login_that_is_shut_into_a_part_of_it_has_it_by_a_shorter_path(): void
    {
        self::assertSame(
            ['/home/a/public', '/public', '/', null],
            $this->find(
                $this->login(1, ''),
                $this->login(2, '/home/a'),
                $this->login(3, '/home/a/public'),
                $this->login(4, '/home/b'),
            ),
        );
    }

    public function test_one_that_sees_more_has_it_where_it_is_known_to_have_directories(): void
    {
        $inner = new LocalRemoteDirectory("$this->server/home/a");
        $outer = new OtherLogin(7, 'host.example', new LocalRemoteDirectory($this->server), SharedRootProof::candidates(
            self::path('/public'),
            [self::path('/home/b/public'), self::path('/home/a/public')],
        ));
        $found = SharedRootProof::find($inner, self::path('/public'), 'k2j4h6g8f0', [$outer]);
        self::assertSame('/home/a/public', $found[0]->place?->toString());
    }

    public function test_a_file_of_that_name_that_holds_something_else_is_another_directory(): void
    {
        file_put_contents("$this->server/home/b/public/cellarium-k2j4h6g8f0.txt", "cellarium another000\n");
        $found = SharedRootProof::find(
            new LocalRemoteDirectory($this->server),
            self::path('/home/a/public'),
            'k2j4h6g8f0',
            [$this->login(1, '/home/b', '/public')],
        );
        self::assertNull($found[0]->place);
        self::assertNull($found[0]->trouble);
    }

    public function test_a_login_that_cannot_be_asked_is_not_one_that_does_not_have_it(): void
    {
        $broken = new FaultyDirectory(
            new LocalRemoteDirectory($this->server),
            static fn (): RemoteFailure => RemoteFailure::while('reading', FailureReason::Disconnected),
            static fn (): null => null,
        );
        $found = SharedRootProof::find(
            new LocalRemoteDirectory($this->server),
            self::path('/home/a/public'),
            'k2j4h6g8f0',
            [
                new OtherLogin(1, 'silent.example', $broken, [self::path('/home/a/public')]),
                new OtherLogin(
                    3,
                    'silent.example',
                    new LocalRemoteDirectory($this->server),
                    [self::path('/home/a/public')],
                ),
                $this->login(2, ''),
            ],
        );
        self::assertSame(
            [FailureReason::Disconnected, FailureReason::Disconnected, null],
            array_map(static fn (SharedRoot $shared): ?FailureReason => $shared->trouble?->reason, $found),
            'a host that is silent is not waited for once more',
        );
        self::assertSame('/home/a/public', $found[2]->place?->toString(), 'the next host is asked');
    }

    public function test_a_token_that_somebody_takes_away_meanwhile_was_not_seen_nowhere(): void
    {
        $taking = new FaultyDirectory(
            new LocalRemoteDirectory("$this->server/home/b"),
            function (): null {
                array_map(unlink(...), glob("$this->server/home/a/public/cellarium-*") ?: []);

                return null;
            },
            static fn (): null => null,
        );
        $found = SharedRootProof::find(
            new LocalRemoteDirectory($this->server),
            self::path('/home/a/public'),
            'k2j4h6g8f0',
            [
                $this->login(1, ''),
                new OtherLogin(2, 'host.example', $taking, [self::path('/public')]),
                $this->login(3, ''),
            ],
        );
        self::assertSame('/home/a/public', $found[0]->place?->toString(), 'what was seen was seen');
        self::assertSame(
            [FailureReason::NotFound, FailureReason::NotFound],
            [$found[1]->trouble?->reason, $found[2]->trouble?->reason],
        );
    }
}
