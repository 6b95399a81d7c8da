<?php

declare(strict_types=1);

namespace Tests\Core\File;

use Cellarium\Core\File\FileChange;
use Cellarium\Core\File\FileSteps;
use Cellarium\Core\File\FileWork;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Transfer\SequentialPool;
use Cellarium\Core\Transfer\Surveyor;
use PHPUnit\Framework\TestCase;
use Tests\Support\LocalRemoteDirectory;
use Tests\Support\Scratch;
use Tests\Support\TestStore;

/** What is done with a folder, step by step, on a real directory: all of it, in an order in which each step can be. */
final class FileStepsTest extends TestCase
{
    use Scratch;

    private string $live;

    private ContentStore $store;

    protected function setUp(): void
    {
        $this->live = $this->directory();
        $this->store = TestStore::in($this->directory());
        mkdir("$this->live/dials/inner/empty", 0755, true);
        file_put_contents("$this->live/dials/brass.html", 'brass');
        file_put_contents("$this->live/dials/inner/enamel.html", 'enamel');
        chmod("$this->live/dials/inner/enamel.html", 0640);
    }

    private function folder(): ManifestEntry
    {
        return new ManifestEntry(RelativePath::fromString('dials'), EntryKind::Directory, mode: 0755);
    }

    private function inside(): Manifest
    {
        $pool = new SequentialPool(new LocalRemoteDirectory($this->live));

        return (new Surveyor($pool))->survey(RemotePath::fromString('/dials'))->manifest;
    }

    /**
     * @param  list<FileChange>  $steps
     * @return list<FileChange> what takes all of it back
     */
    private function carriedOut(array $steps): array
    {
        $work = new FileWork(new LocalRemoteDirectory($this->live), $this->store, 'r1');
        $back = [];
        foreach ($steps as $step) {
            $result = $work->carryOut($step);
            array_unshift($back, $step->undo($result->before, $result->after));
        }

        return array_values(array_filter($back));
    }

    public function test_a_folder_is_set_aside_from_inside_out_and_comes_back_whole(): void
    {
        $before = self::contents($this->live);

        $back = $this->carriedOut(FileSteps::setAside($this->folder(), $this->inside()));

        self::assertSame([], self::contents($this->live));
        $this->carriedOut($back);
        self::assertSame($before, self::contents($this->live));
        clearstatcache();
        self::assertSame(0640, fileperms("$this->live/dials/inner/enamel.html") & 07777);
    }

    public function test_a_folder_is_copied_with_all_that_lies_in_it(): void
    {
        $to = RemotePath::fromString('/copy of dials');

        $back = $this->carriedOut(FileSteps::copy($this->folder(), $to, $this->inside()));

        $copied = self::contents("$this->live/copy of dials");
        self::assertSame(self::contents("$this->live/dials"), $copied);
        $this->carriedOut($back);
        self::assertDirectoryDoesNotExist("$this->live/copy of dials");
    }

    public function test_rights_are_set_where_they_differ_and_a_folder_is_never_shut_before_what_lies_in_it(): void
    {
        $steps = FileSteps::setModes($this->folder(), 0604, 0500, $this->inside());

        $this->carriedOut($steps);

        clearstatcache();
        self::assertSame(0604, fileperms("$this->live/dials/inner/enamel.html") & 07777);
        self::assertSame(0500, fileperms("$this->live/dials/inner/empty") & 07777);
        $again = FileSteps::setModes($this->folder()->withMode(0500), 0604, 0500, $this->inside());
        self::assertSame([], $again);
    }

    public function test_links_are_told_apart(): void
    {
        symlink('brass.html', "$this->live/dials/link.html");

        $left = FileSteps::left($this->inside());

        self::assertSame('link.html', (string) $left[0]->path);
        self::assertCount(1, $left);
    }
}
