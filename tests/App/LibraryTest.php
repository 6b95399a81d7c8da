<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Deployment;
use App\Models\Package;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use App\Packages\Packages;
use Illuminate\Support\Facades\DB;
use Tests\Support\Zips;

/** All packages by their names: found, sorted, compared, with where each runs; and let go where nobody needs them. */
final class LibraryTest extends AppTestCase
{
    /** @return list<Package> three versions; the first two are deployed, one after the other */
    private function versions(): array
    {
        $versions = [];
        $files = [];
        foreach (['1.0', '1.1', '1.2'] as $version) {
            $files[] = $this->zip(
                ['index.html' => "<title>Stones</title>\n<p>$version</p>\n<b>same</b>"] + self::SITE,
                "stones-$version.zip",
            );
            $versions[] = app(Packages::class)->take(end($files), "stones-$version.zip");
        }
        foreach ([$files[0], $files[1]] as $file) {
            [$status] = $this->artisanJson('deploy', 'site.example', $file);
            self::assertSame(0, $status);
        }

        return $versions;
    }

    public function test_it_shows_where_versions_run_who_is_behind_and_what_changed(): void
    {
        [$first, $second, $third] = $this->versions();
        $this->package(['index.html' => '<title>x</title>'], 'gannet-3.zip');
        $this->actingAs($this->person)
            ->get('/packages')
            ->assertSeeInOrder(['gannet', 'nowhere', 'stones', '1.2', '3 versions', 'site.example', '1.1']);
        $this->get('/packages?sort=versions')->assertSeeInOrder(['3 versions', 'gannet']);
        $this->get('/packages?q=ston+1.2')->assertSee('stones')->assertDontSee('gannet');
        $this->get('/packages?q=nothing')->assertSee('No package fits');
        $this->get("/packages/$third->id")
            ->assertSeeInOrder(['1 behind', 'an older version is live'])
            ->assertSee('the way back');
        $this->get("/packages/$second->id/compare/$first->id?file=index.html")
            ->assertOk()
            ->assertSee('1 changed, 3 the same')
            ->assertSeeInOrder(['&lt;p&gt;1.0&lt;/p&gt;', '&lt;p&gt;1.1&lt;/p&gt;'], false)
            ->assertDontSee('<p>1.1</p>', false);
    }

    public function test_a_name_and_a_version_may_be_typed_and_stay(): void
    {
        $package = $this->package(['index.html' => '<title>x</title>'], 'final FINAL (2).zip');
        $this->actingAs($this->person)
            ->post("/packages/$package->id/name", ['name' => 'stones', 'version' => '2.0-rc1'])
            ->assertRedirect("/packages/$package->id");
        self::assertSame('stones 2.0-rc1', $package->refresh()->title());
        $this->post("/packages/$package->id/type", ['type' => 'built-site']);
        self::assertSame('stones 2.0-rc1', $package->refresh()->title(), 'looking again leaves what was typed');
        self::assertTrue(RecordEntry::where('action', RecordKind::PackageNamed)->exists());
        foreach (['../x', '<b>', "a\nb", ''] as $wrong) {
            $this->post("/packages/$package->id/name", ['name' => $wrong])->assertSessionHasErrors('name');
        }
        $this->post("/packages/$package->id/name", ['name' => 'stones', 'version' => '1 <i>'])
            ->assertSessionHasErrors('version');

        $theme = app(Packages::class)->take(Zips::make("$this->var/reed.zip", [
            'theme.ini' => "name = reed\nversion = 0.4\nfor = quaylight\n",
            'page.php' => '<?php',
        ]), 'reed.zip');
        $this->post("/packages/$theme->id/name", ['name' => 'other', 'version' => '0.5']);
        self::assertSame('reed 0.5', $theme->refresh()->title(), 'where it goes follows from its own name');
    }

    public function test_what_is_live_or_a_way_back_or_in_a_plan_stays_and_the_rest_goes(): void
    {
        [$first, $second, $third] = $this->versions();
        $fourth = $this->package(['index.html' => '<title>4</title>'], 'stones-1.3.zip');
        $this->actingAs($this->person)
            ->get("/packages/let-go?packages[]=$fourth->id")
            ->assertSeeInOrder(['1 of 3', '1.2', 'goes', '1.1', 'is live on site.example', '1.0', 'is the way back']);

        $chosen = array_map(static fn (Package $one): string => (string) $one->id, [$first, $second, $third]);
        $this->post('/packages/let-go', ['packages' => $chosen])->assertRedirect('/packages');
        self::assertSame(
            [false, false, true],
            [$first->refresh()->isLetGo(), $second->refresh()->isLetGo(), $third->refresh()->isLetGo()],
        );
        self::assertSame(0, DB::table('package_manifests')->where('package_id', $third->id)->count());
        self::assertSame(1, RecordEntry::where('action', RecordKind::PackageLetGo)->count());

        // It is deployed by no way any more, and its page says what became of it.
        $this->get("/packages/$third->id")->assertOk()->assertSee('was let go');
        $this->post('/deployments', ['site' => (string) $this->site->id, 'package' => (string) $third->id])
            ->assertSessionHasErrors('package');
        self::assertSame(2, Deployment::count());

        // The same bytes are the same package again, with its files.
        $bytes = $this->zip(['index.html' => '<title>4</title>'], 'stones-1.3.zip');
        $fifth = app(Packages::class)->take($bytes, 'stones-1.4.zip');
        $this->post('/packages/let-go', ['packages' => [(string) $fifth->id]]);
        $again = app(Packages::class)->take($bytes, 'stones-1.4.zip');
        self::assertSame([$fifth->id, false], [$again->id, $again->isLetGo()]);
        self::assertNotNull($again->contents()->get('index.html'));
        $this->get("/packages/$again->id")->assertOk()->assertDontSee('was let go');
    }

    public function test_a_plan_that_waits_keeps_its_package(): void
    {
        $package = $this->package();
        $this->actingAs($this->person)
            ->post('/deployments', ['site' => (string) $this->site->id, 'package' => (string) $package->id]);

        $this->get("/packages/let-go?this=1&packages[]=$package->id")->assertSee('is in a plan or a deployment');
        $this->followingRedirects()
            ->from('/packages')
            ->post('/packages/let-go', ['packages' => [(string) $package->id]])
            ->assertSee('None of these can be let go');
        self::assertFalse($package->refresh()->isLetGo());
    }

    public function test_an_undone_version_is_not_live_and_the_one_before_is(): void
    {
        [$first, $second] = $this->versions();
        $deployment = Deployment::where('package_id', $second->id)->firstOrFail();
        $this->actingAs($this->person)->post("/deployments/$deployment->id/undo");
        $undo = Deployment::latest('id')->firstOrFail();
        $this->post("/deployments/$undo->id/start");

        $this->get('/packages')->assertSeeInOrder(['site.example', '1.0']);
        $this->get("/packages/let-go?this=1&packages[]=$second->id")->assertSee('goes');
        $this->get("/packages/let-go?this=1&packages[]=$first->id")->assertSee('is live on site.example');
    }
}
