<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Deployment;

/** One line says what is live, whatever was changed since and whatever of that was taken back. */
final class LiveHeadlineTest extends FilesTestCase
{
    private function says(): string
    {
        return (string) $this->site->refresh()->live_says;
    }

    private function upload(string ...$names): Deployment
    {
        $this->bring(array_map(static fn (): string => '<p>'.uniqid(), array_flip($names)));

        return $this->carriedOut();
    }

    public function test_it_names_the_version_and_counts_what_was_changed_since(): void
    {
        $this->deployed(['index.html' => '<h1>Dials</h1>', 'a.html' => 'a', 'b.html' => 'b']);
        self::assertSame('stones 1.0', $this->says());
        $this->upload('a.html');
        self::assertSame('stones 1.0, 1 file changed by hand since', $this->says());
        $second = $this->upload('a.html', 'c.html');
        self::assertSame('stones 1.0, 2 files changed by hand since', $this->says(), 'a.html is one file');
        $this->get("/sites/{$this->site->id}")->assertSee('stones 1.0, 2 files changed by hand since');

        $this->change('set_aside', ['b.html']);
        self::assertSame('stones 1.0, 3 files changed by hand since', $this->says());
        $this->post("/file-changes/{$this->lastChange()->id}/undo")->assertRedirect();
        self::assertSame('stones 1.0, 2 files changed by hand since', $this->says());

        $this->post("/deployments/$second->id/undo")->assertRedirect();
        $this->carriedOut();
        self::assertSame('stones 1.0, 1 file changed by hand since', $this->says(), 'as before the second upload');

        $next = $this->deployed(['index.html' => '<h1>Newer</h1>']);
        self::assertSame('stones 1.0', $this->says());
        $this->post("/backups/$next->backup_id/restore", ['paths' => ['a.html']])->assertRedirect();
        $this->carriedOut();
        self::assertSame('stones 1.0, 1 file changed by hand since', $this->says());
        $this->get("/accounts/{$this->account->id}")->assertOk()->assertSee('Restore a.html of');
        $this->get("/sites/{$this->site->id}")->assertOk();
    }
}
