<?php

declare(strict_types=1);

namespace Tests\App;

use App\Files\Listings;
use App\Models\Deployment;
use App\Models\DeploymentKind;
use App\Models\DeploymentState;
use App\Models\DirectoryListing;
use Cellarium\Core\File\WorkingCopy;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Change;
use Illuminate\Http\UploadedFile;

/** Files brought by hand: compared first, and what was downloaded to be worked on with what it was then. */
final class ManualUploadTest extends AppTestCase
{
    private const PAGES = 12;

    protected function setUp(): void
    {
        parent::setUp();
        $files = ['index.html' => '<h1>Dials</h1>'];
        for ($page = 1; $page <= self::PAGES; $page++) {
            $files["dials/page$page.html"] = "<p>dial $page, opened in 2025</p>";
        }
        $this->deployed($files);
        $this->actingAs($this->person);
    }

    public function test_files_are_compared_and_only_what_differs_goes_up(): void
    {
        $plan = $this->bring([
            'index.html' => '<h1>Dials</h1>',
            'new page.html' => '<p>new</p>',
            '.htaccess' => 'Options -Indexes',
        ]);

        $added = Change::Add->value;
        self::assertSame(DeploymentKind::Files, $plan->kind);
        self::assertSame(2, $plan->counts['added']['files']);
        $this->get("/deployments/$plan->id?show=$added")
            ->assertSee('Files by hand into site.')
            ->assertSee('new page.');
        $this->start($plan);
        self::assertSame('<p>new</p>', file_get_contents($this->root().'/new page.html'));
        self::assertFileExists($this->root().'/dials/page1.html', 'what was not brought stays');
        $this->get("/sites/{$this->site->id}/files?look=1&hidden=1")
            ->assertSeeInOrder(['.htaccess', 'by hand here', 'index.html', 'new page.html', 'by hand here']);
        $this->post("/deployments/$plan->id/undo");
        $this->start(Deployment::latest('id')->firstOrFail());
        self::assertFileDoesNotExist($this->root().'/new page.html');
    }

    public function test_of_a_working_copy_only_what_was_changed_goes_up_and_what_others_changed_is_a_question(): void
    {
        $copy = $this->workingCopy(['dials']);
        // Here five pages are changed; on the server somebody changes one of these and another one.
        foreach (range(1, 5) as $page) {
            $copy["dials/page$page.html"] = str_replace('2025', '2026', $copy["dials/page$page.html"]);
        }
        file_put_contents($this->root().'/dials/page5.html', '<p>dial 5, by somebody else</p>');
        file_put_contents($this->root().'/dials/page6.html', '<p>dial 6, by somebody else</p>');

        $plan = $this->bring(['working copy.zip' => $this->packed($copy)]);

        self::assertSame(4, $plan->counts['replaced']['files']);
        $this->get("/deployments/$plan->id")->assertSee('after 1 answer')->assertSee('page5.html');
        $this->post("/deployments/$plan->id/answers", ['scope' => 'dials/page5.html', 'choice' => 'theirs']);
        $this->start($plan->refresh());
        self::assertSame('<p>dial 4, opened in 2026</p>', file_get_contents($this->root().'/dials/page4.html'));
        self::assertSame('<p>dial 5, by somebody else</p>', file_get_contents($this->root().'/dials/page5.html'));
        self::assertSame('<p>dial 6, by somebody else</p>', file_get_contents($this->root().'/dials/page6.html'));
        self::assertSame('<p>dial 7, opened in 2025</p>', file_get_contents($this->root().'/dials/page7.html'));
        self::assertFileDoesNotExist($this->root().'/dials/'.WorkingCopy::NAME);
    }

    public function test_a_working_copy_without_a_change_or_of_another_site_says_so(): void
    {
        $copy = $this->workingCopy(['dials']);

        $this->followingRedirects()->from("/sites/{$this->site->id}/files");
        $this->upload(['copy.zip' => $this->packed($copy)])->assertSee('None of the 12 files is different');
        $this->site->update(['domain' => 'other.example']);
        $copy['dials/page1.html'] = 'changed';
        $this->followingRedirects()->from("/sites/{$this->site->id}/files");
        $this->upload(['copy.zip' => $this->packed($copy)])->assertSee('were downloaded from site.example');
        self::assertSame(1, Deployment::count());
    }

    public function test_an_archive_that_is_no_working_copy_is_a_file_like_any_other(): void
    {
        $plan = $this->bring(['downloads.zip' => $this->packed(['a.txt' => 'a'])]);

        self::assertSame(1, $plan->counts['added']['files']);
        $this->start($plan);
        self::assertFileExists($this->root().'/downloads.zip');
    }

    private function start(Deployment $plan): void
    {
        $this->post("/deployments/$plan->id/start");
        self::assertSame(DeploymentState::Proven, $plan->refresh()->state, (string) $plan->trouble);
    }

    /** @param  array<string, string>  $files */
    private function bring(array $files): Deployment
    {
        $this->upload($files)->assertRedirect();
        $plan = Deployment::latest('id')->firstOrFail();
        self::assertSame(DeploymentState::Planned, $plan->state, (string) $plan->trouble);

        return $plan;
    }

    /**
     * @param  array<string, string>  $files
     * @return \Illuminate\Testing\TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function upload(array $files): \Illuminate\Testing\TestResponse
    {
        return $this->post("/sites/{$this->site->id}/file-uploads", [
            'at' => $this->site->document_root,
            'brought' => array_map(
                static fn (string $name, string $text) => UploadedFile::fake()->createWithContent($name, $text),
                array_keys($files),
                $files,
            ),
        ]);
    }

    /**
     * @param  list<string>  $names
     * @return array<string, string> what an archive to work on holds, by path
     */
    private function workingCopy(array $names): array
    {
        $this->get("/sites/{$this->site->id}/files?look=1");
        $listing = DirectoryListing::forPath($this->account, RemotePath::fromString($this->site->document_root));
        $words = [];
        foreach (Listings::entries($listing) ?? [] as $entry) {
            in_array($entry->name, $names, true) && $words[] = $entry->seenWord();
        }
        $zip = $this->sentOf($this->post("/sites/{$this->site->id}/file-downloads", [
            'at' => $this->site->document_root,
            'names' => $words,
            'do' => 'work_on',
        ]));
        $texts = [];
        for ($index = 0; $index < $zip->numFiles; $index++) {
            $name = (string) $zip->getNameIndex($index);
            str_ends_with($name, '/') || $texts[$name] = (string) $zip->getFromIndex($index);
        }

        return $texts;
    }

    /** @param  array<string, string>  $texts */
    private function packed(array $texts): string
    {
        $file = $this->directory().'/packed.zip';
        $zip = new \ZipArchive;
        $zip->open($file, \ZipArchive::CREATE);
        foreach ($texts as $name => $text) {
            $zip->addFromString((string) $name, $text);
        }
        $zip->close();

        return (string) file_get_contents($file);
    }
}
