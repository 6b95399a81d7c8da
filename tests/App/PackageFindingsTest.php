<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Deployment;

/** What the inspection found, on the page and in the console; what stops is not deployed by any way. */
final class PackageFindingsTest extends AppTestCase
{
    public function test_the_page_shows_each_kind_with_its_places_and_what_was_meant(): void
    {
        $package = $this->package([
            'index.html' => "<p>\n<img src=\"img/Harbour.JPG\"><a href=\"<script>alert(1)</script>\">".str_repeat(
                "\n<a href=gone.html>",
                7,
            ),
            'img/harbour.jpg' => 'x',
        ]);

        $this->actingAs($this->person)
            ->get("/packages/$package->id")
            ->assertOk()
            ->assertSee('Works on the author’s computer, breaks live')
            ->assertSee('asks for img/Harbour.JPG; the file is img/harbour.jpg.')
            ->assertSee('line 2')
            ->assertSee('Leads nowhere')
            ->assertSee('3 more like these')
            ->assertDontSee('<script>alert(1)</script>', false)
            ->assertDontSee('leads where it says');
        $this->get('/packages')->assertSee('cannot go live');
    }

    public function test_a_package_whose_references_are_right_says_so(): void
    {
        $package = $this->package(['index.html' => '<a href="about.html">', 'about.html' => 'x']);

        $this->actingAs($this->person)
            ->get("/packages/$package->id")
            ->assertSee('Every reference within it leads where it says');
    }

    public function test_what_holds_a_secret_is_deployed_neither_from_the_page_nor_from_the_console(): void
    {
        $files = ['index.html' => 'x', 'config/.env' => "A=1\nDB_PASSWORD=Tide-Mill-42\n"];
        $before = scandir($this->root());

        [$status, $said] = $this->artisanJson('deploy', 'site.example', $this->zip($files));

        self::assertSame(1, $status);
        self::assertStringContainsString('config/.env line 2 holds a password or a token', $said['error']);
        self::assertStringNotContainsString('Tide-Mill', (string) json_encode($said));
        $this->actingAs($this->person)
            ->get('/packages/1')
            ->assertSee('This package cannot go live as it is')
            ->assertDontSee('Tide-Mill');
        $this->followingRedirects()
            ->post('/deployments', ['site' => (string) $this->site->id, 'package' => '1'])
            ->assertSee('cannot go live');
        self::assertSame(0, Deployment::where('state', 'planned')->count());
        self::assertSame($before, scandir($this->root()));
    }

    public function test_the_console_prints_each_finding_whole(): void
    {
        $file = $this->zip(['index.html' => '<a href="abuot.html">', 'about.html' => 'x']);

        [$status, $said] = $this->artisanJson('inspect', $file);

        self::assertSame(0, $status);
        self::assertContains([
            'code' => 'reference_missing',
            'severity' => 'warn',
            'path' => 'index.html',
            'line' => 1,
            'message' => 'asks for abuot.html, which is not in the package; nearest is about.html.',
            'suggestion' => 'about.html',
        ], $said['findings']);
    }
}
