<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Plans\Plans;

/** What somebody changed on the server since the last deployment is asked about, and nothing starts before. */
final class ConflictsTest extends AppTestCase
{
    private const FIRST = [
        'index.html' => '<h1>First</h1>',
        'catalogue/prices.html' => "one\ntwo\nthree\n",
        'catalogue/order.php' => '<?php // order',
        'about.html' => 'about',
    ];

    private const SECOND = [
        'index.html' => '<h1>Second</h1>',
        'catalogue/prices.html' => "one\n2\nthree\n",
        'catalogue/order.php' => '<?php // order, second',
        'about.html' => 'about, second',
    ];

    /** The site as first deployed, then changed by somebody else; the second package planned. */
    private function planned(): Deployment
    {
        $this->deployed(self::FIRST);
        file_put_contents($this->root().'/catalogue/prices.html', "one\ntwo\nthree\nadded by hand\n");
        unlink($this->root().'/catalogue/order.php');
        $this->actingAs($this->person);

        return app(Plans::class)->deploy($this->site, $this->package(self::SECOND));
    }

    private function answer(Deployment $run, string $scope, string $choice): void
    {
        $this->post("/deployments/$run->id/answers", ['scope' => $scope, 'choice' => $choice])->assertRedirect();
        $run->refresh();
    }

    public function test_nothing_starts_while_a_question_is_open(): void
    {
        $run = $this->planned();
        $before = self::contents($this->root());
        $this->get("/deployments/$run->id")->assertSeeInOrder([
            '2 questions for you',
            'Questions 2',
            'catalogue/order.php',
            'gone',
            'removed live',
            'Leave it away',
            'catalogue/prices.html',
            'changed live',
            'Look at all three',
            'Leave the one there',
            'Put the new one',
            'Both',
            'after 2 answers',
        ]);
        $this->post("/deployments/$run->id/start")
            ->assertSessionHas('trouble', 'Not every question is answered. Nothing was started.');
        self::assertSame(DeploymentState::Planned, $run->refresh()->state);
        self::assertSame($before, self::contents($this->root()));
    }

    public function test_answers_are_carried_out_and_the_next_plan_asks_again(): void
    {
        $run = $this->planned();
        $this->answer($run, 'catalogue/prices.html', 'both');
        self::assertSame(1, $run->counts['asked']['files']);
        $this->answer($run, 'catalogue/order.php', 'theirs');
        $this->get("/deployments/$run->id")
            ->assertSee('left away')
            ->assertSee('aria-pressed="true">Both', false)
            ->assertDontSee('after 2 answers');
        $this->post("/deployments/$run->id/start");
        self::assertSame(DeploymentState::Proven, $run->refresh()->state, (string) $run->trouble);
        self::assertFileDoesNotExist($this->root().'/catalogue/order.php');
        self::assertSame(
            self::SECOND['catalogue/prices.html'],
            file_get_contents($this->root().'/catalogue/prices.html'),
        );
        $beside = 'catalogue/prices.live-'.gmdate('Y-m-d').'.html';
        self::assertStringContainsString('added by hand', (string) file_get_contents($this->root()."/$beside"));

        $next = app(Plans::class)->deploy($this->site, $this->package(['index.html' => 'third'] + self::SECOND));
        self::assertSame(1, $next->counts['asked']['files'], 'what was left away is asked about again');
        $this->get("/deployments/$next->id")->assertSee('catalogue/order.php')->assertSee('removed live');
    }

    public function test_what_was_left_as_theirs_is_not_forgotten_by_a_run_about_something_else(): void
    {
        $this->deployed(self::FIRST + ['old.html' => 'old']);
        file_put_contents($this->root().'/about.html', 'edited by hand');
        $this->actingAs($this->person);
        $run = app(Plans::class)->deploy($this->site, $this->package(self::SECOND));
        $this->answer($run, 'about.html', 'theirs');
        $this->post("/deployments/$run->id/start");
        self::assertSame(DeploymentState::Proven, $run->refresh()->state, (string) $run->trouble);

        $this->post("/deployments/$run->id/restore");
        $back = Deployment::latest('id')->firstOrFail();
        $this->post("/deployments/$back->id/start");
        self::assertSame(DeploymentState::Proven, $back->refresh()->state, (string) $back->trouble);
        self::assertFileExists($this->root().'/old.html');

        $next = app(Plans::class)->deploy($this->site, $this->package(['index.html' => 'third'] + self::SECOND));
        self::assertSame(1, $next->counts['asked']['files']);
        $this->get("/deployments/$next->id")->assertSeeInOrder(['about.html', 'changed live']);
    }

    public function test_a_folder_or_all_of_a_plan_is_answered_as_one(): void
    {
        $run = $this->planned();
        file_put_contents($this->root().'/about.html', 'edited');
        $run = app(Plans::class)->deploy($this->site, $run->package ?? self::fail('no package'));
        self::assertSame(3, $run->counts['asked']['files']);
        $this->answer($run, 'catalogue/', 'theirs');
        self::assertSame(1, $run->counts['asked']['files']);
        $this->answer($run, '', 'ours');
        self::assertSame(0, $run->counts['asked']['files']);
        self::assertSame(3, $run->counts['replaced']['files'], 'the last word of a wider answer counts');
    }

    public function test_what_changes_again_is_asked_again_and_other_answers_stay(): void
    {
        $run = $this->planned();
        $this->answer($run, '', 'ours');
        file_put_contents($this->root().'/catalogue/prices.html', 'changed once more');
        $this->post("/deployments/$run->id/start");
        self::assertSame(DeploymentState::Planned, $run->refresh()->state);
        self::assertSame(1, $run->counts['asked']['files']);
        $this->get("/deployments/$run->id")
            ->assertSeeInOrder(['The server changed after this plan was made', '1 file changed:', 'prices.html'])
            ->assertSee('1 question for you');
        $this->answer($run, 'catalogue/prices.html', 'ours');
        $this->post("/deployments/$run->id/start");
        self::assertSame(DeploymentState::Proven, $run->refresh()->state, (string) $run->trouble);
        self::assertSame(
            self::SECOND['catalogue/prices.html'],
            file_get_contents($this->root().'/catalogue/prices.html'),
        );
    }

    public function test_what_only_reading_shows_is_asked_after_the_backup(): void
    {
        $this->deployed(self::FIRST);
        $file = $this->root().'/about.html';
        file_put_contents($file, 'ABOUT');
        touch($file, time() - 5000);
        $this->actingAs($this->person);
        $run = app(Plans::class)->deploy($this->site, $this->package(['about.html' => 'other'] + self::SECOND));
        self::assertSame(0, $run->counts['asked']['files'], 'of the same size, and not read yet');
        $this->post("/deployments/$run->id/start");
        self::assertSame(DeploymentState::Planned, $run->refresh()->state, (string) $run->trouble);
        self::assertSame(1, $run->counts['asked']['files']);
        self::assertSame('ABOUT', file_get_contents($file));
        $this->get("/deployments/$run->id")->assertSee('Reading the files for the backup showed');
    }

    public function test_what_was_sent_is_not_fetched_by_the_next_deployment_minutes_later(): void
    {
        config(['cellarium.settle_seconds' => 2]);
        $this->deployed(self::FIRST);
        $this->actingAs($this->person);
        $run = app(Plans::class)->deploy($this->site, $this->package(self::SECOND));
        $this->post("/deployments/$run->id/start");
        self::assertSame(DeploymentState::Proven, $run->refresh()->state, (string) $run->trouble);
        self::assertSame([0, 4], [$run->backup?->fetched_files, $run->backup?->taken_over_files]);
    }

    public function test_all_three_are_laid_beside_each_other(): void
    {
        $run = $this->planned();
        $this->get("/deployments/$run->id/file?path=catalogue/prices.html")->assertOk()->assertSeeInOrder([
            'Last deployed',
            'On the server now',
            'In the package',
            '<td class="is-same"><code>two</code>',
            '<td class="is-changed"><code>2</code>',
            '<td class="is-added"><code>added by hand</code>',
        ], false);
        $this->get("/deployments/$run->id/file?path=nowhere.html")->assertSee('nowhere.html is not in this plan');
    }

    public function test_the_console_refuses_with_the_list_or_takes_one_answer_for_all(): void
    {
        $this->planned();
        touch($this->root().'/catalogue/prices.html', time() + 100);
        $before = self::contents($this->root());
        $zip = $this->zip(self::SECOND, 'second-2.0.zip');
        $deploy = fn (string ...$more): array => $this->artisanJson('deploy', 'site.example', ...[$zip, ...$more]);
        [$status, $report] = $deploy();
        self::assertSame(1, $status);
        self::assertSame(
            [['catalogue/order.php', 'removed_live'], ['catalogue/prices.html', 'changed_live']],
            array_map(
                static fn (array $question): array => [$question['path'], $question['conflict']],
                $report['questions'],
            ),
        );
        self::assertSame($before, self::contents($this->root()));
        [$status, $report] = $deploy('--on-conflict=later');
        self::assertSame([1, 1], [$status, count($report['questions'])], 'what is gone has no time');
        [$status] = $deploy('--on-conflict=nothing');
        self::assertSame(1, $status);
        [$status] = $deploy('--on-conflict=put');
        self::assertSame(0, $status);
        self::assertSame(self::SECOND['catalogue/order.php'], file_get_contents($this->root().'/catalogue/order.php'));
    }
}
