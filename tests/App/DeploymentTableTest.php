<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Backup;
use App\Models\BackupReason;
use App\Models\BackupState;
use App\Models\Deployment;
use App\Models\DeploymentKind;
use App\Models\DeploymentState;
use App\Models\RecordEntry;
use App\Models\RecordGroup;
use App\Models\RecordKind;
use App\Models\SetAside;
use App\Models\Site;
use App\Record\Record;
use Tests\Support\Builder\PersonBuilder;
use Tests\Support\Builder\SiteBuilder;

/** Deployments and the record are looked through by what somebody knows of them. */
final class DeploymentTableTest extends AppTestCase
{
    protected const HOST_IS_ONLY_READ = true;

    /** @param  array<string, mixed>  $columns */
    private function known(array $columns = []): Deployment
    {
        return Deployment::create($columns + [
            'site_id' => $this->site->id,
            'kind' => DeploymentKind::Deploy,
            'state' => DeploymentState::Proven,
            'policy' => [],
            'counts' => [],
            'package_id' => null,
            'ended_at' => now(),
        ]);
    }

    /** @return list<int> numbers of the deployments that a page leads to, in its order */
    private function shown(string $query): array
    {
        $page = (string) $this->get("/deployments?$query")->assertOk()->getContent();
        preg_match_all('~class="strong" href="/deployments/(\d+)"~', $page, $found);

        return array_map(intval(...), $found[1]);
    }

    public function test_each_filter_shows_what_fits_and_nothing_else(): void
    {
        $helper = PersonBuilder::aHelper()->build();
        $other = SiteBuilder::aSite('other.example')->on($this->account)->from('/www/other.example')->build();
        $missing = [[
            'page' => 'a.html',
            'line' => 1,
            'asks' => 'b',
            'status' => 404,
        ]];
        $found = static fn (array $unanswered, array $refusals): array => [
            'version' => 1,
            'unanswered' => $unanswered,
            'not_asked' => 0,
            'refusals' => $refusals,
            'listed' => [],
            'held' => [],
            'asks_held' => false,
        ];
        $refusal = [
            'path' => '.env',
            'url' => 'u',
            'status' => 200,
            'public' => true,
            'sha256' => '',
        ];
        $runs = [
            'live' => $this->known(['person_id' => $this->person->id])->id,
            'plan' => $this->known(['state' => DeploymentState::Planned, 'ended_at' => null])->id,
            'missing' => $this->known(['found_live' => $found($missing, [])])->id,
            'public' => $this->known(['found_live' => $found([], [$refusal])])->id,
            'refused' => $this->known(['found_live' => $found([], [['public' => false] + $refusal])])->id,
            'failed' => $this->known(['state' => DeploymentState::PutBack, 'person_id' => $helper->id])->id,
            'other' => $this->known(['site_id' => $other->id, 'created_at' => now()->subDays(9)])->id,
        ];
        $rows = [
            '' => ['other', 'failed', 'refused', 'public', 'missing', 'plan', 'live'],
            'q=other.ex' => ['other'],
            'q=100%25' => [],
            'only=plans' => ['plan'],
            'only=but' => ['public', 'missing'],
            'only=failed' => ['failed'],
            'only=live' => ['other', 'refused', 'public', 'missing', 'live'],
            "who=$helper->id" => ['failed'],
            'until='.now()->subDays(2)->format('Y-m-d') => ['other'],
            'since='.now()->subDays(2)->format('Y-m-d').'&only=failed' => ['failed'],
            'since=nonsense&only=nonsense&who=x' => ['other', 'failed', 'refused', 'public', 'missing', 'plan', 'live'],
        ];
        $this->actingAs($this->person);
        foreach ($rows as $query => $names) {
            self::assertSame(
                array_map(static fn (string $name): int => $runs[$name], $names),
                $this->shown($query),
                $query,
            );
        }
    }

    public function test_uploads_by_hand_one_after_the_other_are_folded(): void
    {
        $by = fn (?Site $site = null): Deployment => $this->known([
            'kind' => DeploymentKind::Files,
            'directory' => '/www/site.example',
            'site_id' => ($site ?? $this->site)->id,
        ]);
        $other = SiteBuilder::aSite('other.example')->on($this->account)->from('/www/other.example')->build();
        array_map(static fn (int $number): Deployment => $by(), range(1, 3));
        $by($other);
        array_map(static fn (int $number): Deployment => $by(), range(1, 2));
        $page = $this->actingAs($this->person)->get('/deployments')->assertOk();
        self::assertSame(1, substr_count((string) $page->getContent(), '<details>'));
        $page->assertSee('3 uploads by hand on');
        self::assertCount(6, $this->shown(''));
    }

    public function test_every_page_that_names_runs_of_any_kind_loads_what_their_names_are_made_of(): void
    {
        $other = SiteBuilder::aSite('other.example')->on($this->account)->from('/www/other.example')->build();
        $backup = Backup::create([
            'site_id' => $other->id,
            'reason' => BackupReason::OnDemand,
            'state' => BackupState::Verified,
            'name' => 'named',
            'verified_at' => now()->subHour(),
        ]);
        foreach ([$this->site, $other] as $site) {
            $of = fn (DeploymentKind $kind, array $columns = []): Deployment => $this->known([
                'site_id' => $site->id,
                'kind' => $kind,
            ] + $columns);
            $deploy = $of(DeploymentKind::Deploy);
            $restore = $of(DeploymentKind::RestoreBackup, ['from_backup_id' => $backup->id]);
            $undo = $of(DeploymentKind::Undo, ['undoes_id' => $restore->id]);
            $of(DeploymentKind::Undo, ['undoes_id' => $undo->id]);
            $of(DeploymentKind::RestoreFiles, ['undoes_id' => $deploy->id]);
            $of(DeploymentKind::RestoreBackup, ['from_backup_id' => $backup->id, 'state' => DeploymentState::PutBack]);
            foreach ([$restore, $undo] as $run) {
                SetAside::create([
                    'site_id' => $site->id,
                    'deployment_id' => $run->id,
                    'path' => 'a.html',
                    'sha256' => str_repeat('0', 64),
                    'bytes' => 1,
                    'set_aside_at' => now(),
                    'held_until' => now()->addDay(),
                ]);
            }
        }
        $id = $this->site->id;
        $pages = ['/deployments', "/sites/$id", "/sites/$id/over-time", "/sites/$id/set-aside"];
        $this->actingAs($this->person);
        foreach ([...$pages, "/accounts/{$this->account->id}", '/record', '/backups'] as $page) {
            $this->get($page)->assertOk();
        }
        $this->get("/sites/$id")->assertSee('the backup of other.example');
    }

    public function test_plans_are_discarded_one_or_many_and_what_runs_is_not(): void
    {
        $plans = array_map(fn (): Deployment => $this->known(['state' => DeploymentState::Planned]), range(1, 3));
        $going = $this->known(['state' => DeploymentState::Running]);
        $this->actingAs($this->person)
            ->post('/deployments/discard', ['plans' => [$plans[0]->id, $plans[1]->id, $going->id]])
            ->assertSessionHas('done', '2 plans are discarded. Nothing on a server was changed.');
        self::assertSame(DeploymentState::Cancelled, $plans[0]->refresh()->state);
        self::assertSame(DeploymentState::Running, $going->refresh()->state);
        self::assertSame(DeploymentState::Planned, $plans[2]->refresh()->state);
        $this->post('/deployments/discard', ['plans' => [$going->id]])->assertSessionHas('trouble');
        self::assertSame(2, RecordEntry::where('sentence', 'like', 'Plan discarded%')->count());
    }

    public function test_the_record_is_looked_through_by_what_it_is_about_and_by_whom(): void
    {
        $helper = PersonBuilder::aHelper()->build();
        Record::write(RecordKind::AccountConnected, 'Connected to ftp.host.example as harbour', $this->account);
        Record::write(RecordKind::AccountConnected, 'Could not connect to ftp.host.example: refused', $this->account);
        Record::write(RecordKind::BackupTaken, 'Backup of site.example taken', $this->site, [], $helper);
        $this->actingAs($this->person);
        $this->get('/record')
            ->assertSee('Could not connect')
            ->assertSee('Backup of site.example')
            ->assertDontSee('Connected to ftp');
        $this->get('/record?about=connections')->assertSee('Connected to ftp')->assertDontSee('Backup of site');
        $this->get("/record?who=$helper->id")->assertSee('Backup of site')->assertDontSee('Could not connect');
        $this->get('/record?about=backups')->assertSee('Backup of site')->assertDontSee('Could not connect');
        foreach (RecordKind::cases() as $kind) {
            self::assertContains($kind, RecordGroup::forKind($kind)->kinds());
        }
    }
}
