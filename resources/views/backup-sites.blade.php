@use('App\Models\AlarmKind')
@use('App\Text\Amount')
<x-page title="How every site stands" place="Backups" wide>
    <div class="stack">
    <section class="sheet" aria-labelledby="store">
        <h1 id="store">The store <small>contents of all backups and packages, each kept once, sealed</small></h1>
        @foreach ($store->alarms as $alarm)
            <div class="word is-trouble">
                <p><strong>{{ $alarm->kind->title() }}.</strong> @words($alarm->words)</p>
                @if ($alarm->kind === AlarmKind::Sweep)
                    <div class="row-acts"><x-action to="/store/sweep">Move all of it aside</x-action></div>
                @endif
            </div>
        @endforeach
        @foreach ($store->damaged as $damaged)
            <p class="word is-trouble">Damaged: {{ $damaged->where() }}. {{ $damaged->trouble }}</p>
        @endforeach
        @if ($store->asideFiles !== null)
            <div class="word is-soon">
                <p>{{ Amount::files($store->asideFiles) }}, {{ Amount::bytes($store->asideBytes) }} lie aside: nothing
                    refers to them, and a week after they were moved there they are deleted.</p>
                <div class="row-acts"><x-action to="/store/aside/empty">Delete them now</x-action></div>
            </div>
        @endif
        @if ($store->today === null)
            <p class="calm">It is counted with the next night.</p>
        @else
            <dl class="pairs">
                <dt>Holds</dt>
                <dd>{{ Amount::files($store->today->files) }}, {{ Amount::bytes($store->today->bytes) }}
                    <span class="soft">on {{ $store->today->day->format('j M Y') }}</span></dd>
                <dt>Grows</dt>
                <dd>{{ $store->grows() }}</dd>
                <dt>Room left</dt>
                <dd>{{ $store->today->room === null ? 'the store does not say' : Amount::bytes($store->today->room) }}
                    @if ($store->fullOn !== null)
                        <span class="soft">full about {{ $store->fullOn->format('j M Y') }} at that pace</span>
                    @endif
                </dd>
                @if ($store->frees() !== '')
                    <dt>The next night</dt>
                    <dd>frees {{ $store->frees() }}</dd>
                @endif
                <dt>Read back</dt>
                <dd>
                    @if ($store->round !== null)
                        {{ Amount::files($store->round->files) }} since {{ $store->round->created_at->shown('j M Y') }},
                        all within {{ $store->round->days }} days
                    @endif
                    @if ($store->lastRound !== null)
                        <span class="soft">all of it last on {{ $store->lastRound->ended_at->shown('j M Y') }}</span>
                    @elseif ($store->round === null)
                        begins tonight
                    @endif
                </dd>
            </dl>
        @endif
    </section>
    <section class="sheet" aria-labelledby="itself">
        <h2 id="itself">Cellarium itself
            <small>accounts, keys, lists and the record, in one sealed file each night</small></h2>
        <dl class="pairs">
            <dt>Saved</dt>
            <dd>
                @if ($store->ownNewest !== null)
                    {{ $store->ownNewest->taken_at->shown('j M Y H:i') }}, {{ Amount::bytes($store->ownNewest->bytes) }}
                    <span class="soft">as <x-path :path="$store->ownNewest->name" /></span>
                @elseif (config('cellarium.self_backup.to') === '')
                    nowhere: the settings name no place for it
                @else
                    not yet; the next night does it
                @endif
            </dd>
            <dt>Restored as a rehearsal</dt>
            <dd>
                @if ($store->ownRehearsed === null)
                    never
                @elseif ($store->ownRehearsed->rehearsal_trouble !== null)
                    <span class="note is-now">failed</span> {{ $store->ownRehearsed->rehearsed_at->shown('j M Y') }}
                @else
                    {{ $store->ownRehearsed->rehearsed_at->shown('j M Y') }}
                    <span class="soft">{{ $store->ownRehearsed->rehearsal }}</span>
                @endif
            </dd>
        </dl>
    </section>
    <section class="sheet" aria-labelledby="sites">
        <header class="head">
            <h2 id="sites">How every site stands <small>what breaks a promise first</small></h2>
            <div class="row-acts">
                <x-action to="/backups" method="GET">The newest backups</x-action>
                <x-action to="/backups/overdue">Back up all that are overdue</x-action>
            </div>
        </header>
        @if ($view->sites->isEmpty())
            <p class="calm">There is no site yet.</p>
        @else
            <x-table caption="Sites and their backups" class="is-roomy">
                <thead>
                    <tr>
                        <th scope="col">Site</th>
                        <th scope="col">Promised</th>
                        <th scope="col">Last backup</th>
                        <th scope="col">Promise</th>
                        <th scope="col">Last rehearsal</th>
                        <th scope="col">Size</th>
                        <th scope="col">In 30 days</th>
                        <th scope="col">Goes</th>
                    </tr>
                </thead>
                <tbody>
                    @foreach ($view->sites as $site)
                        <tr>
                            <td class="whole"><x-band :client="$site->owner()" />
                                <a href="/backups?site={{ $site->id }}"><x-domain :name="$site->domain" /></a></td>
                            <td data-label="promised">{{ $view->rules[$site->id]->every() }}</td>
                            <td class="when" data-label="last backup">{{ $site->last_backup_at?->shown('j M Y H:i')
                                ?? 'none' }}</td>
                            <td data-label="promise">
                                @if ($site->placeholder)
                                    <x-tag tone="plain">nothing to hold yet</x-tag>
                                @elseif ($site->last_backup_at === null)
                                    <x-tag tone="now">no backup</x-tag>
                                @elseif ($site->backup_promised_at?->isPast())
                                    <x-tag tone="soon">broken {{ Amount::ago($site->backup_promised_at) }}</x-tag>
                                @else
                                    <x-tag tone="proven">kept</x-tag>
                                @endif
                            </td>
                            <td data-label="rehearsed">
                                @if ($site->rehearsal_promised_at?->isPast())
                                    <x-tag tone="soon">overdue</x-tag>
                                @endif
                                {{ $site->rehearsed_at === null ? 'never' : Amount::ago($site->rehearsed_at) }}</td>
                            <td data-label="size">{{ $site->bytes === null ? '' : Amount::bytes($site->bytes) }}</td>
                            @if (isset($view->growth[$site->id]))
                                <td data-label="in 30 days">{{ $view->growth[$site->id] < 0 ? '−' : '+' }}{{
                                    Amount::bytes(abs($view->growth[$site->id])) }}</td>
                            @else
                                <td></td>
                            @endif
                            <td>{{ $view->goes[$site->id] === 0 ? '' : "{$view->goes[$site->id]} go" }}</td>
                        </tr>
                    @endforeach
                </tbody>
            </x-table>
            <x-pages :of="$view->sites" what="sites" />
        @endif
    </section>
    </div>
</x-page>
