<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Deployment;
use App\Models\Package;
use App\Models\RecordEntry;
use App\Models\RecordKind;

/** Mending is looked at first and makes a package of its own; the drawing and its table show what refers to what. */
final class MendTest extends AppTestCase
{
    private const FAULTY = [
        'index.html' => "<!doctype html>\n<title>Stones</title>\n<img src=\"img/Harbour.JPG\">"
            ."<img src=IMG/harbour.jpg>\n"
            .'<a href="abuot.html">About</a>',
        'about.html' => "<!doctype html>\n<title>About</title>\n<!-- img/Harbour.JPG -->",
        'img/harbour.jpg' => 'x',
        'index.html~' => 'x',
        'config/.env' => "DB_PASSWORD=Tide-Mill-42\n",
    ];

    public function test_the_difference_is_shown_and_nothing_is_changed_by_looking(): void
    {
        $package = $this->package(self::FAULTY);
        $this->actingAs($this->person)
            ->get("/packages/$package->id")
            ->assertSeeInOrder(['Leave it out', 'Correct all 2', 'Point it there', 'Mend all 4 that are safe'])
            ->assertSeeInOrder(['<del>img/Harbour.JPG</del>', '<ins>img/harbour.jpg</ins>'], false);

        $this->get("/packages/$package->id/mend?what=all")
            ->assertOk()
            ->assertSee('2 places written anew, 2 files left out')
            ->assertSee('Make 1.0 mended 1')
            ->assertDontSee('Tide-Mill');
        self::assertSame(1, Package::count());
    }

    public function test_what_is_safe_makes_a_version_of_its_own_that_can_go_live(): void
    {
        $package = $this->package(self::FAULTY);
        $response = $this->actingAs($this->person)->post("/packages/$package->id/mend", ['what' => 'all']);

        $mended = Package::latest('id')->firstOrFail();
        $response->assertRedirect("/packages/$mended->id");
        self::assertSame(
            ['1.0 mended 1', $package->id, false],
            [$mended->version, $mended->mended_from, $mended->stops],
        );
        self::assertCount(4, $mended->mends);
        self::assertTrue($package->refresh()->stops);
        self::assertSame(
            ['about.html', 'config', 'img', 'img/harbour.jpg', 'index.html'],
            array_map(static fn ($entry): string => "$entry->path", $mended->contents()->all()),
        );
        self::assertSame(1, RecordEntry::where('action', RecordKind::PackageMended)->count());

        // The same again is the same package; one more mend is the next version.
        $this->post("/packages/$package->id/mend", ['what' => 'all'])->assertRedirect("/packages/$mended->id");
        $this->post("/packages/$mended->id/mend", ['what' => 'reference_missing']);
        $next = Package::latest('id')->firstOrFail();
        self::assertSame(['1.0 mended 2', $mended->id], [$next->version, $next->mended_from]);
        $this->followingRedirects()
            ->post('/deployments', ['site' => (string) $this->site->id, 'package' => (string) $next->id])
            ->assertSee('stones 1.0 mended 2');
        self::assertSame(1, Deployment::count());
    }

    public function test_one_finding_is_mended_alone(): void
    {
        $package = $this->package(self::FAULTY);
        $finding = collect($package->notes())->first(static fn ($one): bool => $one->suggestion === 'img/harbour.jpg');
        $this->actingAs($this->person)->post("/packages/$package->id/mend", [
            'what' => "reference_case:$finding->offset:index.html",
        ]);

        $left = collect(Package::latest('id')->firstOrFail()->notes())
            ->map(static fn ($one): string => $one->code->value);
        self::assertSame(1, $left->filter(static fn (string $code): bool => $code === 'reference_case')->count());
        self::assertTrue($left->contains('secret_setting'));
    }

    public function test_what_would_break_something_is_not_made(): void
    {
        $package = $this->package([
            'README.md' => 'x',
            'logo.png' => 'x',
            'dist/index.html' => '<title>x</title><img src="../logo.png">',
        ]);

        $this->actingAs($this->person)
            ->followingRedirects()
            ->from("/packages/$package->id")
            ->post("/packages/$package->id/mend", ['what' => 'start_page_elsewhere'])
            ->assertSee('would bring something new')
            ->assertSee('../logo.png');
        self::assertSame(1, Package::count());
    }

    public function test_nothing_to_mend_is_said_and_what_is_no_choice_is_not_there(): void
    {
        $package = $this->package();
        $this->actingAs($this->person)
            ->get("/packages/$package->id/mend?what=reference_case")
            ->assertSee('nothing to mend');
        $this->get("/packages/$package->id/mend?what=everything")->assertNotFound();
        $this->followingRedirects()
            ->from("/packages/$package->id")
            ->post("/packages/$package->id/mend", ['what' => 'all'])
            ->assertSee('There is nothing here that can be mended');
    }

    public function test_what_refers_to_what_is_drawn_and_shown_as_a_table(): void
    {
        $hostile = '<script>alert(1)</script>.html';
        $package = $this->package([
            'index.html' => '<title>x</title><a href="about.html">x</a><a href="about.html">y</a>',
            'about.html' => '<title>x</title><a href="gone/away.html">',
            $hostile => '<title>x</title>',
        ]);
        $this->actingAs($this->person)
            ->get("/packages/$package->id")
            ->assertSee('What refers to what')
            ->assertSee('class="arc is-broken"', false)
            ->assertDontSee('<script>alert', false);

        $this->get("/packages/$package->id/references?file=about.html", ['HX-Request' => 'true'])
            ->assertOk()
            ->assertSeeInOrder(['broken', 'gone/away.html', 'Referred to from', 'index.html', '2'])
            ->assertDontSee('<html', false);
        $this->get("/packages/$package->id/references?file=nobody&in=nowhere")->assertOk()->assertSee('<html', false);
    }

    public function test_what_was_unfinished_in_the_version_before_is_no_news(): void
    {
        $page = static fn (string $more): array => ['index.html' => "<title>x</title><p>Prices coming soon</p>$more"];
        $this->package($page(''), 'stones-1.0.zip');
        $package = $this->package($page('<p>Lorem ipsum</p>'), 'stones-1.1.zip');

        self::assertSame(
            ['unfinished_filler warn', 'wrapper_lifted note', 'unfinished_soon note'],
            array_map(
                static fn ($one): string => "{$one->code->value} {$one->severity->value}",
                $package->notes(),
            ),
        );
    }
}
