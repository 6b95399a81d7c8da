<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\ChangeByHand;
use App\Models\ChangeState;
use App\Models\FileDraft;
use App\Models\FileVersion;
use App\Models\Person;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;

/** A text edited in place: kept as a draft, looked at, saved, put together with what others saved meanwhile. */
final class EditTest extends AppTestCase
{
    private const PRICES = "<!doctype html>\r\n<title>Prices</title>\r\n<p>Gr\xf6\xdfe: klein</p>\r\n<p>12</p>\r\n";

    protected function setUp(): void
    {
        parent::setUp();
        $this->deployed(['index.html' => '<h1>Dials</h1>', 'prices.html' => self::PRICES]);
        $this->actingAs($this->person);
    }

    private function open(string $name = 'prices.html'): FileDraft
    {
        $this->get("/sites/{$this->site->id}/edit-file/$name")->assertOk()->assertSee("Edit $name");

        return FileDraft::where('person_id', $this->person->id)->latest('id')->firstOrFail();
    }

    /** @return TestResponse<\Symfony\Component\HttpFoundation\Response> */
    private function act(FileDraft $draft, string $do, ?string $text = null): TestResponse
    {
        return $this->post("/file-drafts/$draft->id", [
            'do' => $do,
            'files' => 'site',
        ] + ($text === null ? [] : ['content' => self::asForm($text)]));
    }

    /** As a browser sends it. */
    private static function asForm(string $text): string
    {
        return (string) preg_replace('/\\r?\\n/', "\r\n", $text);
    }

    private function text(): string
    {
        return str_replace("\r\n", "\n", mb_convert_encoding(self::PRICES, 'UTF-8', 'ISO-8859-1'));
    }

    public function test_a_changed_line_is_saved_and_no_other_byte(): void
    {
        $draft = $this->open();
        $this->get("/sites/{$this->site->id}/edit-file/prices.html")
            ->assertSee('Latin-1, lines end with CRLF')
            ->assertSee('Größe');
        $edited = str_replace('<p>12</p>', '<p>14</p>', $this->text());

        $this->act($draft, 'review', str_replace("\n", "\r\n", $edited))->assertOk()
            ->assertSeeInOrder(['as opened', 'to be saved', '12', '14', 'Save to the server'])
            ->assertDontSee('most likely a mistake');
        $this->act($draft, 'save')->assertRedirect("/sites/{$this->site->id}/files?chosen=prices.html");

        $change = ChangeByHand::latest('id')->firstOrFail();
        self::assertSame(ChangeState::Done, $change->state, (string) $change->trouble);
        $saved = str_replace('12', '14', self::PRICES);
        self::assertSame(bin2hex($saved), bin2hex((string) file_get_contents($this->root().'/prices.html')));
        self::assertSame(hash('sha256', self::PRICES), FileVersion::latest('id')->firstOrFail()->sha256);
        self::assertFalse(FileDraft::where('id', $draft->id)->exists(), 'saved, so no draft is left');
        $this->get("/sites/{$this->site->id}/files?chosen=prices.html")
            ->assertSee('Visitors get what was saved, to the byte')
            ->assertSee('Kept versions');
        $this->post("/file-changes/$change->id/undo");
        self::assertSame(self::PRICES, file_get_contents($this->root().'/prices.html'));
    }

    public function test_a_draft_survives_encrypted_until_it_is_let_go(): void
    {
        $draft = $this->open();
        $edited = str_replace('klein', 'unmistakable words', $this->text());

        $this->post("/file-drafts/$draft->id/keep", ['content' => $edited])->assertJson(['isDraft' => true]);

        $stored = (string) DB::table('file_drafts')->where('id', $draft->id)->value('text');
        self::assertNotSame('', $stored);
        self::assertStringNotContainsString('unmistakable', $stored);
        $this->get("/sites/{$this->site->id}/edit-file/prices.html")->assertSee('unmistakable words');
        $this->act($draft->refresh(), 'open')->assertRedirect("/sites/{$this->site->id}/edit-file/prices.html");
        $this->get("/sites/{$this->site->id}/edit-file/prices.html")->assertDontSee('unmistakable');
        self::assertSame(self::PRICES, file_get_contents($this->root().'/prices.html'));
    }

    public function test_what_somebody_else_saved_meanwhile_is_put_together_and_not_overwritten(): void
    {
        $draft = $this->open();
        $theirs = str_replace('Prices', 'All prices', self::PRICES);
        file_put_contents($this->root().'/prices.html', $theirs);
        $edited = str_replace('<p>12</p>', '<p>14</p>', $this->text());
        $this->act($draft, 'review', $edited);

        $this->act($draft, 'save')->assertRedirect("/sites/{$this->site->id}/edit-file/prices.html");

        self::assertSame($theirs, file_get_contents($this->root().'/prices.html'), 'theirs is still there');
        $this->get("/sites/{$this->site->id}/edit-file/prices.html")
            ->assertSee('Somebody changed it meanwhile')
            ->assertSeeInOrder(['when you opened it', 'on the server now', 'yours'])
            ->assertSee('You changed other places');
        $this->act($draft->refresh(), 'save');
        self::assertSame(
            str_replace(['Prices', '12'], ['All prices', '14'], self::PRICES),
            file_get_contents($this->root().'/prices.html'),
        );
    }

    public function test_what_is_sent_as_it_was_opened_is_no_draft(): void
    {
        $draft = $this->open();

        $this->post("/file-drafts/$draft->id/keep", ['content' => self::asForm($this->text())])
            ->assertJson(['isDraft' => false]);
        self::assertNull($draft->refresh()->text);
    }

    public function test_both_who_have_a_file_open_see_each_other(): void
    {
        $other = Person::create([
            'name' => 'Wren Tideway',
            'email' => 'tideway@marramtide.example',
            'password' => 'a-word-for-tests',
            'role' => 'helper',
        ]);
        $draft = $this->open();
        $this->post("/file-drafts/$draft->id/keep", ['content' => $this->text().'more']);

        $this->actingAs($other);
        $this->get("/sites/{$this->site->id}/edit-file/prices.html")
            ->assertSee('has this file open since')
            ->assertSee('has changed it without saving yet');
        $this->post("/file-drafts/$draft->id/keep", ['content' => 'mine now'])->assertNotFound();
        $this->actingAs($this->person);
        $this->post("/file-drafts/$draft->id/keep")->assertJson(['others' => [
            'Wren Tideway has this file open since '.now()->format('H:i').'.',
        ]]);
        $this->travel(2)->minutes();
        $this->actingAs($this->person);
        $this->post("/file-drafts/$draft->id/keep")->assertJson(['others' => []]);
    }

    public function test_mistakes_and_what_cannot_be_written_are_told_before_anything_is_saved(): void
    {
        $draft = $this->open();
        $this->act($draft, 'review', str_replace('<p>12</p>', "<p>12</p>\n<p\n<b>x</b>", $this->text()))
            ->assertSee('most likely a mistake')
            ->assertSee('Line 6');
        $this->act($draft, 'review', str_replace('12', '12 €', $this->text()))
            ->assertSee('Line 4 has “€”, which Latin-1 cannot hold')
            ->assertDontSee('Save to the server');
    }

    public function test_what_is_no_text_too_large_or_for_other_eyes_is_not_opened(): void
    {
        file_put_contents($this->root().'/mark.png', "\x89PNG\r\n\x1a\n\0\0\0\rIHDR");
        file_put_contents($this->root().'/large.txt', str_repeat('large ', 400_000));
        file_put_contents($this->root().'/.env', 'PASSWORD=quiet');
        symlink('index.html', $this->root().'/link.html');
        $edit = "/sites/{$this->site->id}/edit-file";

        $this->followingRedirects()->get("$edit/mark.png")->assertSee('is no plain text');
        $this->followingRedirects()->get("$edit/large.txt")->assertSee('is not edited here');
        $this->followingRedirects()->get("$edit/link.html")->assertSee('is a link to another place');
        $this->followingRedirects()->get("$edit/nothing.html")->assertSee('is no longer there');
        self::assertSame(0, FileDraft::count());
        $this->get("$edit/.env")->assertOk()->assertSee('PASSWORD=quiet');
        $this->person->update(['role' => 'helper']);
        $this->actingAs($this->person->refresh());
        $this->get("$edit/.env")->assertDontSee('PASSWORD=quiet')->assertSee('asswords may stand in');
    }
}
