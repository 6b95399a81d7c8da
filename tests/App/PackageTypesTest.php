<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\Package;
use Illuminate\Http\UploadedFile;

/** Packages are recognised by rules that the agency changes and exchanges; what is no site is put into none. */
final class PackageTypesTest extends AppTestCase
{
    private const THEME = [
        'theme.ini' => "name = shore\nversion = 1.2\nfor = quaylight\n",
        'page.php' => '<?php return 1;',
    ];

    private const OWN = "id: lamp-log\nlabel: Log of a lamp\nrecognise:\n    from: 9\n    markers:\n"
        ."        - { file: lamp.log, weight: 10, says: <b>lamp.log</b> is there }\ngoes:\n    into: document_root\n";

    public function test_a_theme_is_known_has_its_version_and_goes_into_no_document_root(): void
    {
        $theme = $this->package(self::THEME, 'shore.zip');
        self::assertSame(['quaylight-theme', '1.2', false], [$theme->type, $theme->version, $theme->stops]);

        $this->actingAs($this->person)
            ->get("/packages/$theme->id")
            ->assertSee('Quaylight theme')
            ->assertSee('theme.ini says it is for Quaylight');
        $this->followingRedirects()
            ->from('/deployments/new')
            ->post('/deployments', ['site' => (string) $this->site->id, 'package' => (string) $theme->id])
            ->assertSee('the system it belongs to, quaylight, is not installed on site.example');
        self::assertSame(DeploymentState::NotPlanned, Deployment::firstOrFail()->state);
    }

    public function test_a_type_is_added_used_exported_imported_and_removed(): void
    {
        $this->actingAs($this->person)->get('/package-types')->assertSeeInOrder(['Built site', 'Quaylight theme']);
        $this->post('/package-types', ['yaml' => self::OWN])->assertRedirect('/package-types');
        $this->get('/package-types')->assertSee('Log of a lamp')->assertDontSee('<b>lamp.log</b>', false);
        $package = $this->package(['lamp.log' => 'lit', 'index.html' => '<title>x</title>'], 'lamp-1.zip');
        self::assertSame('lamp-log', $package->type);
        $this->get("/packages/$package->id")->assertSee('Log of a lamp')->assertDontSee('<b>lamp.log</b>', false);

        $exported = $this->get('/package-types/lamp-log.yaml')->assertOk()->getContent();
        self::assertSame(self::OWN, $exported);
        $this->post('/package-types/lamp-log/remove')->assertRedirect('/package-types');
        $this->get('/package-types')->assertDontSee('Log of a lamp');
        $this->get("/packages/$package->id")->assertOk()->assertSee('of no known type');
        $this->post('/package-types', [
            'file' => UploadedFile::fake()->createWithContent('lamp.yaml', (string) $exported),
        ])->assertRedirect('/package-types');
        $this->get('/package-types')->assertSee('Log of a lamp');
    }

    public function test_what_is_no_type_is_refused_with_its_place_and_a_shipped_one_is_had_back(): void
    {
        $this->actingAs($this->person)
            ->followingRedirects()
            ->from('/package-types/new')
            ->post('/package-types', ['yaml' => str_replace('document_root', 'attic', self::OWN)])
            ->assertSee('goes/into')
            ->assertSee('Nothing was saved');
        $this->post('/package-types', ['yaml' => str_replace(['lamp-log', 'Log of a lamp'], [
            'built-site',
            'Mine',
        ], self::OWN)]);
        $this->get('/package-types')->assertSee('Mine')->assertSee('changed here');
        $this->post('/package-types/built-site/remove');
        $this->get('/package-types')->assertSee('Built site')->assertDontSee('Mine');
    }

    public function test_two_that_fit_equally_well_are_asked_about_before_anything_is_deployed(): void
    {
        $this->actingAs($this->person)->post('/package-types', ['yaml' => self::OWN]);
        $this->post('/package-types', ['yaml' => str_replace(['lamp-log', 'Log of a lamp'], [
            'lamp-book',
            'Book of a lamp',
        ], self::OWN)]);
        $package = $this->package(['lamp.log' => 'lit', 'index.html' => '<title>x</title>'], 'lamp-1.zip');
        self::assertSame([null, ['lamp-book', 'lamp-log']], [$package->type, $package->type_choices]);
        $this->get("/packages/$package->id")->assertSee('Several types fit equally well');
        $this->followingRedirects()
            ->from('/deployments/new')
            ->post('/deployments', ['site' => (string) $this->site->id, 'package' => (string) $package->id])
            ->assertSee('may be of several kinds');

        $this->followingRedirects()
            ->post("/packages/$package->id/type", ['type' => 'lamp-book'])
            ->assertSee('Book of a lamp');
        self::assertSame(['lamp-book', []], [
            Package::findOrFail($package->id)->type,
            Package::findOrFail($package->id)->type_choices,
        ]);
        $this->post('/deployments', ['site' => (string) $this->site->id, 'package' => (string) $package->id]);
        self::assertSame(1, Deployment::count());
    }
}
