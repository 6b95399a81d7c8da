<?php

declare(strict_types=1);

namespace Tests\App;

use App\Errands\Errands;
use App\Errands\RunErrand;
use App\Errands\WaitingPages;
use App\Hosting\Connections;
use App\Models\Errand;
use App\Models\ErrandKind;
use App\Models\ErrandState;
use App\Models\Person;
use App\Models\RecordEntry;
use App\Storage\Spool;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Route;

/** Pages order what hosts are asked for; what was fetched waits an hour, for the one who asked, and no page for long. */
final class NoPageAsksHostsTest extends FilesTestCase
{
    public function test_by_no_way_does_a_page_reach_a_host(): void
    {
        $connections = app(Connections::class);
        $ways = [
            fn () => $connections->remote($this->account),
            fn () => $connections->remoteAs($this->account->ftpUsers()->make(['login' => 'x', 'secret' => 'y'])),
            fn () => $connections->control($this->account->fill(['control_url' => 'http://c', 'control_token' => 't'])),
            fn () => $connections->jobs($this->account),
            fn () => $connections->web(),
            fn () => $connections->ladder(),
        ];
        foreach ($ways as $number => $way) {
            Route::get("/asks-$number", static function () use ($way): string {
                try {
                    $way();
                } catch (\LogicException $refused) {
                    return $refused->getMessage();
                }

                return 'It was asked.';
            });
            $this->get("/asks-$number")->assertSee('A page asks no host itself');
        }
        self::assertNotNull($connections->web(), 'outside of a page it may be asked');
    }

    public function test_a_look_waits_for_no_host_and_shows_what_was_fetched_once_it_is_there(): void
    {
        file_put_contents($this->root().'/dial.png', "\x89PNG\r\n, and more");
        config(['queue.default' => 'database', 'cellarium.errand_seconds' => 0]);
        $look = "/sites/{$this->site->id}/look-file/dial.png?seen=1";

        $this->get($look)->assertStatus(202)->assertHeader('Retry-After', '1');
        $this->get($look)->assertStatus(202);
        self::assertSame(1, Errand::where('kind', ErrandKind::FetchFile)->count(), 'it is fetched once');
        (new RunErrand(Errand::latest('id')->firstOrFail()->id))->handle();
        self::assertSame("\x89PNG\r\n, and more", $this->get($look)->assertOk()->streamedContent());
        $part = $this->get($look, ['Range' => 'bytes=1-3'])->assertStatus(206);
        self::assertSame('PNG', $part->streamedContent());

        $this->actingAs(Person::factory ?? $this->person);
    }
}
