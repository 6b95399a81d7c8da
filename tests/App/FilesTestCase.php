<?php

declare(strict_types=1);

namespace Tests\App;

use App\Files\Listings;
use App\Models\ChangeByHand;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\DirectoryListing;
use Cellarium\Core\Path\RemotePath;
use Illuminate\Http\UploadedFile;
use Illuminate\Testing\TestResponse;

/** A deployed site whose files somebody works on. */
abstract class FilesTestCase extends AppTestCase
{
    protected string $files;

    protected function setUp(): void
    {
        parent::setUp();
        $this->deployed([
            'index.html' => '<h1>Dials</h1>',
            'prices.html' => '<h1>Prices</h1>',
            'dials/brass.html' => '<h1>Brass</h1>',
            'dials/enamel.html' => '<h1>Enamel</h1>',
        ]);
        $this->actingAs($this->person);
        $this->files = "/sites/{$this->site->id}/files";
    }

    final protected function lastChange(): ChangeByHand
    {
        return ChangeByHand::latest('id')->firstOrFail();
    }

    /**
     * @param  list<string>  $names
     * @param  array<string, string>  $more
     */
    final protected function change(string $do, array $names, array $more = []): TestResponse
    {
        $this->get("$this->files?look=1");

        return $this->post("/sites/{$this->site->id}/file-changes", [
            'do' => $do,
            'at' => $this->at(),
            'names' => array_map($this->word(...), $names),
        ] + $more)->assertRedirect();
    }

    /**
     * Files that somebody brings to the document root by the form.
     *
     * @param  array<string, string>  $files  by name
     */
    final protected function bring(array $files): TestResponse
    {
        return $this->post("/sites/{$this->site->id}/file-uploads", [
            'at' => $this->at(),
            'brought' => array_map(
                static fn (string $name, string $text) => UploadedFile::fake()->createWithContent($name, $text),
                array_keys($files),
                $files,
            ),
        ])->assertRedirect();
    }

    /** The newest plan, started and carried out to its proof. */
    final protected function carriedOut(): Deployment
    {
        $plan = Deployment::latest('id')->firstOrFail();
        $this->post("/deployments/$plan->id/start");
        self::assertSame(DeploymentState::Proven, $plan->refresh()->state, (string) $plan->trouble);

        return $plan;
    }

    final protected function at(): string
    {
        return $this->site->document_root;
    }

    /** What of a name was seen, as the page gives it back. */
    final protected function word(string $name): string
    {
        $listing = DirectoryListing::forPath($this->account, RemotePath::fromString($this->at()));
        foreach (Listings::entries($listing) ?? [] as $entry) {
            if ($entry->name === $name) {
                return $entry->seenWord();
            }
        }
        self::fail("$name was not seen.");
    }

    /** @param  list<string>  $names */
    final protected function downloaded(array $names, bool $isToWorkOn = false): \ZipArchive
    {
        $this->get("$this->files?look=1");

        return $this->sentOf($this->post("/sites/{$this->site->id}/file-downloads", [
            'at' => $this->at(),
            'names' => array_map($this->word(...), $names),
        ] + ($isToWorkOn ? ['do' => 'work_on'] : [])));
    }
}
