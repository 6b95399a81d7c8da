<?php

declare(strict_types=1);

namespace Tests\Core\Proof;

use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Hosting\HostedUser;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Proof\Evidence;
use Cellarium\Core\Proof\ProofStep;
use Cellarium\Core\Proof\ReachProof;
use Cellarium\Core\Reach\MeantReach;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\FixedClock;
use Tests\Support\LocalRemoteDirectory;
use Tests\Support\LocalUser;
use Tests\Support\Scratch;

/** A user that is kept in its directory is proven; every way a host lets it out, or gives it more, is caught. */
final class ReachProofTest extends TestCase
{
    use Scratch;

    private function home(): string
    {
        $home = $this->directory();
        foreach (['/www/site/uploads', '/www/other', '/logs'] as $folder) {
            mkdir($home.$folder, 0755, true);
        }
        file_put_contents("$home/www/site/index.html", 'x');
        file_put_contents("$home/www/other/index.html", 'x');

        return $home;
    }

    private function prove(
        LocalUser $user,
        string $home,
        string $directory = '/www/site',
        bool $readOnly = false,
        ?int $space = null,
        ?HostedUser $told = null,
    ): Evidence {
        $before = self::contents($home);
        $meant = new MeantReach(
            'job',
            RemotePath::fromString($directory),
            $readOnly,
            $space,
            [
                RemotePath::fromString('/www/other'),
            ],
        );
        $evidence = (new ReachProof($meant, $user, new LocalRemoteDirectory($home), 'n1', new FixedClock()))->open(
            $told,
        );
        self::assertSame($before, self::contents($home), 'nothing is left behind');

        return $evidence;
    }

    public function test_one_that_is_kept_is_proven_step_by_step(): void
    {
        $home = $this->home();
        symlink('uploads', "$home/www/site/pictures");
        symlink('../other', "$home/www/site/neighbour");
        $evidence = $this->prove(
            new LocalUser($home, '/www/site'),
            $home,
            space: 5_000_000,
            told: new HostedUser('job', '/www/site', 5_000_000, false, true, null),
        );
        self::assertTrue($evidence->holds(), (string) $evidence->broken()?->sentence);
        self::assertSame(
            [
                'sign_in',
                'landing',
                'parent',
                'absolute',
                'encoded',
                'files',
                'link',
                'write',
                'read_back',
                'remove',
                'space',
            ],
            array_map(static fn (ProofStep $step): string => $step->name, $evidence->steps),
        );
        self::assertSame(
            'Landed in /www/site: 4 of 4 names agree, and a marker put there is seen',
            $evidence->steps[1]->sentence,
        );
        self::assertSame(['230 Signed in', 1795168800.0], [$evidence->steps[0]->answer, $evidence->steps[0]->at]);
    }

    public function test_an_empty_directory_is_told_from_every_other_by_the_marker(): void
    {
        $home = $this->home();
        mkdir("$home/www/empty");
        self::assertTrue($this->prove(new LocalUser($home, '/www/empty'), $home, '/www/empty')->holds());
        self::assertSame('landing', $this->prove(new LocalUser($home, '/logs'), $home, '/www/empty')->broken()?->name);
    }

    /**
     * @return iterable<string, array{string|null, string, string}> what leaks, where it lands, the step that shows it
     */
    public static function waysOut(): iterable
    {
        yield 'lands in the account' => [null, '/', 'landing'];
        yield 'lands in the directory above' => [null, '/www', 'landing'];
        yield 'lands beside' => [null, '/www/other', 'landing'];
        yield 'one up' => ['#\A\.\.\z#', '/www/site', 'parent'];
        yield 'many up' => ['#\A(\.\./){3,}#', '/www/site', 'parent'];
        yield 'from the root' => ['#\A/\z#', '/www/site', 'absolute'];
        yield 'the directory above by its name' => ['#\A/www\z#', '/www/site', 'absolute'];
        yield 'another site' => ['#\A/www/other\z#', '/www/site', 'absolute'];
        yield 'percent' => ['#%2e%2e\z#', '/www/site', 'encoded'];
        yield 'backslash' => ['#\\\\#', '/www/site', 'encoded'];
        yield 'overlong' => ["#\xc0\xae#", '/www/site', 'encoded'];
        yield 'the shell\'s home' => ['#\A~#', '/www/site', 'encoded'];
        yield 'a link' => ['#\Aneighbour\z#', '/www/site', 'link'];
    }

    #[DataProvider('waysOut')]
    public function test_each_way_out_is_caught(?string $leaks, string $lands, string $step): void
    {
        $home = $this->home();
        symlink('../other', "$home/www/site/neighbour");
        $evidence = $this->prove(new LocalUser($home, $lands, $leaks), $home);
        self::assertSame([$step, true], [$evidence->broken()?->name, $evidence->decided()]);
        self::assertNotNull($evidence->broken()->next);
    }

    public function test_a_server_that_guards_directories_and_not_names_of_files_is_caught(): void
    {
        $home = $this->home();
        foreach (['#\A\.\./site/#', '#\A/www/site/#', '#%2f#', '#\\\\#', '#\A\.\./\.\./www/#'] as $leak) {
            $evidence = $this->prove(new LocalUser($home, '/www/site', leaksFiles: $leak), $home);
            self::assertSame(['files', true], [$evidence->broken()?->name, $evidence->decided()], $leak);
        }
    }

    public function test_a_link_to_a_file_outside_is_tried_by_reading_it(): void
    {
        $home = $this->home();
        symlink('../other/index.html', "$home/www/site/theirs.html");
        self::assertSame('link', $this->prove(new LocalUser($home, '/www/site'), $home)->broken()?->name);
    }

    public function test_a_folder_inside_with_the_name_of_one_outside_is_no_way_out(): void
    {
        $home = $this->home();
        mkdir("$home/www/site/www/other", 0755, true);
        self::assertTrue(
            $this->prove(new LocalUser($home, '/www/site', '#\A/www#'), "$home", '/www/site')->broken()?->name
                === 'absolute',
            'the one outside is still seen',
        );
        self::assertTrue($this->prove(new LocalUser($home, '/www/site'), $home)->holds());
    }

    public function test_read_only_and_space_are_held_to(): void
    {
        $home = $this->home();
        $held = $this->prove(new LocalUser($home, '/www/site', writes: false), $home, readOnly: true);
        self::assertTrue($held->holds());
        self::assertContains(
            'May not write',
            array_map(static fn (ProofStep $step): string => $step->sentence, $held->steps),
        );
        self::assertSame(
            'write',
            $this->prove(new LocalUser($home, '/www/site'), $home, readOnly: true)->broken()?->name,
        );
        self::assertSame(
            'write',
            $this->prove(new LocalUser($home, '/www/site', writes: false), $home)->broken()?->name,
        );
        $more = $this->prove(
            new LocalUser($home, '/www/site'),
            $home,
            space: 5_000_000,
            told: new HostedUser('job', '/www/site', null, false, true, null),
        )->broken();
        self::assertSame(['space', 'Space: no limit, where 5 MB was asked for'], [$more?->name, $more?->sentence]);
    }

    public function test_what_could_not_be_carried_through_proves_nothing_either_way(): void
    {
        $home = $this->home();
        foreach (
            [
                [FailureReason::Disconnected, false],
                [FailureReason::TimedOut, false],
                [FailureReason::SignInRefused, true],
            ] as [$reason, $decided]
        ) {
            $user = new LocalUser($home, '/www/site', fails: $reason);
            $evidence = $this->prove($user, $home);
            self::assertSame(
                ['sign_in', false, $decided],
                [$evidence->broken()?->name, $evidence->holds(), $evidence->decided()],
            );
            $closed = (new ReachProof(
                new MeantReach('job', RemotePath::root()),
                $user,
                new LocalRemoteDirectory($home),
                'n1',
                new FixedClock(),
            ))->closed();
            self::assertSame([$decided, $decided], [$closed->holds(), $closed->decided()]);
        }
        self::assertSame(
            'landing',
            $this->prove(new LocalUser($home, '/www/site'), $home, '/www/gone')->broken()?->name,
        );
        $open = (new ReachProof(
            new MeantReach('job', RemotePath::root()),
            new LocalUser($home, '/www/site'),
            new LocalRemoteDirectory($home),
            'n1',
            new FixedClock(),
        ))->closed();
        self::assertSame(['job can still sign in', true], [$open->broken()?->sentence, $open->decided()]);
    }
}
