@use('App\Text\Amount')
<x-page :title="$site->domain" place="Accounts">
    <x-slot:where>
        <x-site-where :site="$site">
            <x-slot:facts>
                @foreach ($view->proven() as $fact)
                    @if (in_array($fact->name, ['Live pages', 'Backup'], true))
                        <span>{{ strtolower($fact->name) }} {{ $fact->age() ?: $fact->words }}</span>
                    @endif
                @endforeach
                <span>{{ $view->signsIn() }}</span>
            </x-slot:facts>
        </x-site-where>
    </x-slot:where>
    <header class="head site-head">
        <div>
            <h1><x-domain :name="$site->domain" /></h1>
            <p class="soft">
                @if ($site->lastDeployment !== null && ! $site->placeholder)
                    <x-link to="/deployments/{{ $site->lastDeployment->id }}">{{ $view->live() }}</x-link>
                @else
                    {{ $view->live() }}
                @endif
                {{ $view->since() }}
            </p>
        </div>
        <div class="row-acts">
            <x-action to="/deployments/new?site={{ $site->id }}" method="GET" main>Deploy</x-action>
            <x-action to="/sites/{{ $site->id }}/backups">Back up</x-action>
            @if ($site->filesAreShown())
                <x-action to="/sites/{{ $site->id }}/files?last=1" method="GET">Files</x-action>
            @endif
            <x-action method="GET"
                to="/accounts/{{ $account->id }}/ftp-users/new?directory={{ urlencode($site->document_root) }}">New
                FTP user</x-action>
            <x-action to="/sites/{{ $site->id }}/edit" method="GET">Settings</x-action>
            <x-action to="/sheets?site={{ $site->id }}" method="GET">Sheets</x-action>
        </div>
    </header>
    @if ($view->going() !== null)
        <p class="word is-kept">{{ $view->going()->title() }}: {{ $view->going()->state->label() }}.
            @leads("/deployments/{$view->going()->id}")
                <a href="/deployments/{{ $view->going()->id }}">Look at it</a>
            @endleads
        </p>
    @endif
    @if ($view->open->isNotEmpty())
        <section class="sheet is-above" aria-labelledby="open">
            <h2 id="open">Open to everybody <small>and should not be</small></h2>
            @foreach ($view->open as $one)
                <p class="word is-trouble"><a href="{{ $site->liveAddress($one->url) }}" target="_blank"
                        rel="noreferrer noopener"><x-domain :name="$one->url" /></a> {{ $one->words() }}
                    Asked {{ $one->asked_at?->shown('j M H:i') }}.</p>
            @endforeach
            <div class="row-acts"><x-action to="/sites/{{ $site->id }}/open-addresses">Ask again</x-action></div>
        </section>
    @endif
    @leads("/sites/$site->id/over-time")
        <section class="sheet over-time" id="over-time" aria-label="Over time" hx-get="/sites/{{ $site->id }}/over-time"
            hx-trigger="load" hx-swap="outerHTML">
            <p class="soft"><a href="/sites/{{ $site->id }}/over-time">Over time</a></p>
        </section>
    @endleads
    <div class="two">
        <div class="stack">
            <section class="sheet" aria-labelledby="live">
                <h2 id="live">Live</h2>
                <dl class="pairs">
                    <dt>Address</dt>
                    <dd><a href="{{ $site->liveLink() }}" target="_blank" rel="noreferrer noopener"><x-domain
                                :name="$site->base_url" /></a>
                        <button type="button" class="link" data-copy="@exactly("$site->base_url/")"
                            aria-label="copy address {{ $site->base_url }}/">copy address</button></dd>
                    <dt>Document root</dt>
                    <dd><x-path :path="$site->document_root" /></dd>
                    @foreach ($view->alsoReached() as [$shared, $there])
                        <dt>Also reached</dt>
                        <dd>in <x-path :path="$there->toString()" /> as
                            <x-link to="/accounts/{{ $shared->other_id }}">{{ $shared->other->login }} at
                                {{ $shared->other->host }}</x-link>
                            <div class="soft">One place: its changes wait for one another. A token put there was seen
                                through both {{ $shared->proven_at->shown('j M H:i') }}.</div></dd>
                    @endforeach
                    @if ($site->application_root !== null)
                        <dt>Application</dt>
                        <dd><x-path :path="$site->application_root" /> <span class="soft">is backed up and compared as
                                a whole</span></dd>
                    @endif
                    @if ($site->aliases !== [])
                        <dt>Other names</dt>
                        <dd>
                            @foreach ($site->aliases as $alias)
                                <div><x-domain :name="$alias" /></div>
                            @endforeach
                        </dd>
                    @endif
                    <dt>Way back</dt>
                    <dd>{{ $view->wayBack() ?? 'none: nothing was replaced from here yet' }}</dd>
                    <dt>Space</dt>
                    <dd>{{ $view->space() }}</dd>
                </dl>
                @if ($view->canGoBack())
                    <x-action to="/deployments/{{ $site->lastDeployment->id }}/undo">Undo
                        {{ $site->lastDeployment->title() }}</x-action>
                @endif
            </section>
            <section class="sheet" aria-labelledby="deployments">
                <h2 id="deployments">Last deployments</h2>
                @if ($view->deployments->isEmpty())
                    <p class="calm">Nothing was deployed to it from here. Choose a package and look at the plan; nothing
                        is replaced before you say so.</p>
                @else
                    <x-table caption="Deployments">
                        <thead>
                            <tr>
                                <th scope="col">What</th>
                                <th scope="col">When</th>
                                <th scope="col">How</th>
                                <th scope="col">Who</th>
                            </tr>
                        </thead>
                        <tbody>
                            @foreach ($view->deployments as $run)
                                <tr>
                                    <td><x-link to="/deployments/{{ $run->id }}">{{ $run->title() }}</x-link></td>
                                    <td class="when">{{ $run->when() }}</td>
                                    <td>@include('parts.state')</td>
                                    <td>{{ $run->person?->shortName() ?? 'console' }}</td>
                                </tr>
                            @endforeach
                        </tbody>
                    </x-table>
                @endif
            </section>
            <section class="sheet" aria-labelledby="backups">
                <h2 id="backups">Last backups</h2>
                @if ($view->backups->isEmpty())
                    <p class="calm">There is no backup yet. One is taken before every deployment, and whenever you say
                        so.</p>
                @else
                    <x-table caption="Backups">
                        <thead>
                            <tr>
                                <th scope="col">When</th>
                                <th scope="col">Why</th>
                                <th scope="col">Holds</th>
                                <th scope="col">Proof</th>
                            </tr>
                        </thead>
                        <tbody>
                            @foreach ($view->backups as $backup)
                                <tr>
                                    <td class="when">{{ $backup->created_at->shown('j M Y H:i') }}</td>
                                    <td>{{ $backup->why() }}</td>
                                    <td><x-backup-holds :backup="$backup" /></td>
                                    <td><x-tag :tone="$backup->state->tone()">{{ $backup->stands() }}</x-tag></td>
                                </tr>
                            @endforeach
                        </tbody>
                    </x-table>
                    <p class="row-acts"><a href="/backups?site={{ $site->id }}">All backups of this site</a></p>
                @endif
            </section>
            @if ($view->heldAside > 0)
                <section class="sheet" aria-labelledby="aside">
                    <h2 id="aside">Set aside <small>{{ number_format($view->heldAside) }} taken out, held
                        {{ config('cellarium.set_aside_days') }} days</small></h2>
                    @include('parts.set-aside', ['files' => $view->aside])
                    @if ($view->heldAside > $view->aside->count())
                        <p class="row-acts"><a href="/sites/{{ $site->id }}/set-aside">All that is set aside</a></p>
                    @endif
                </section>
            @endif
        </div>
        <div class="stack">
            @if ($installed !== [])
                <section class="sheet" aria-labelledby="installed">
                    <h2 id="installed">Installed <small>as the server showed it at the last look</small></h2>
                    <x-table caption="Installed">
                        <tbody>
                            @foreach ($installed as $row)
                                <tr>
                                    <td>{{ $row->name ?? $row->label }}
                                        <b>{{ $row->version ?? 'of no known version' }}</b>
                                        @if ($row->name !== null)
                                            <div class="soft">{{ $row->label }}</div>
                                        @endif
                                    </td>
                                    <td data-label="in"><x-path :path="$row->directory" /></td>
                                    <td>
                                        @if ($row->newer !== null)
                                            @leads('/packages/'.$row->newer->id)
                                                <a href="/packages/{{ $row->newer->id }}?site={{ $site->id }}"><x-tag
                                                        tone="soon">{{ $row->newer->version }} in the
                                                        library</x-tag></a>
                                            @endleads
                                        @endif
                                    </td>
                                </tr>
                            @endforeach
                        </tbody>
                    </x-table>
                </section>
            @endif
            <section class="sheet" aria-labelledby="proven">
                <h2 id="proven">What is proven</h2>
                <dl class="proven-facts">
                    @foreach ($view->proven() as $fact)
                        <dt>{{ $fact->name }}</dt>
                        <dd class="is-{{ $fact->tone }}-text" title="{{ $fact->moment() }}">@words($fact->words)
                            @if ($fact->age() !== '')
                                <span class="soft unbroken">{{ $fact->age() }}</span>
                            @endif
                        </dd>
                    @endforeach
                </dl>
                <div class="row-acts">
                    <x-action to="/sites/{{ $site->id }}/prove-root">Prove the document root</x-action>
                    <x-action to="/sites/{{ $site->id }}/php">Ask which PHP it runs</x-action>
                </div>
            </section>
            <section class="sheet" aria-labelledby="touch">
                <h2 id="touch">Who can touch it</h2>
                <ul class="users">
                    @foreach ($view->touchers as $toucher)
                        <li>
                            <x-link class="strong" :to="$toucher->url"><x-path :path="$toucher->login" /></x-link>
                            <p class="soft">{{ $toucher->extent }} ·
                                <span class="{{ $toucher->late ? 'is-now-text' : '' }}">{{ $toucher->until }}</span></p>
                        </li>
                    @endforeach
                </ul>
            </section>
            @if ($site->mounts !== [] || $site->destinations->isNotEmpty())
                <section class="sheet" aria-labelledby="places">
                    <h2 id="places">Directories and addresses</h2>
                    <dl class="pairs is-map">
                        @foreach ($view->places() as $place)
                            <dt><x-path :path="$place['directory']" /></dt>
                            <dd>
                                @if ($place['address'] !== null)
                                    <x-address :address="$place['address']" />
                                @else
                                    <span class="soft">visitors cannot reach it</span>
                                @endif
                            </dd>
                        @endforeach
                        @foreach ($site->destinations as $destination)
                            <dt><x-path :path="$destination->directory" /></dt>
                            <dd>destination “{{ $destination->name }}”</dd>
                        @endforeach
                    </dl>
                </section>
            @endif
            @leads('/uploads', 'POST')
                @include('parts.upload', ['site' => $site])
            @endleads
            @leads("/sites/$site->id/edit")
            <section class="sheet" aria-labelledby="notes">
                <h2 id="notes">Notes</h2>
                @if ((string) $site->notes === '')
                    <p class="calm">None. <a href="/sites/{{ $site->id }}/edit#notes">Write some</a> for whoever looks
                        after it next.</p>
                @else
                    <p class="notes">{{ $site->notes }}</p>
                @endif
            </section>
            @endleads
        </div>
    </div>
</x-page>
