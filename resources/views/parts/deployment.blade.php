@use('Cellarium\Core\Words\Count')
@use('App\Text\Amount')
@if (request()->hasHeader('HX-Request'))
    <title>{{ $view->title() }} · Cellarium</title>
@endif
<div id="run" @if ($view->isDone()) data-ended="{{ $view->title() }}" @endif>
    @include('parts.stations')
    @if (session('trouble') && request()->hasHeader('HX-Request'))
        <p class="word is-trouble" role="alert"><bdi>@words(session()->pull('trouble'))</bdi></p>
    @endif
    @if ($view->serverChanges() !== null)
        <div class="word is-soon" role="status">
            <p>{{ $view->serverChanges()->sentence }}</p>
            @foreach ($view->serverChanges()->kinds as [$words, $paths])
                <p><b>{{ $words }}:</b>
                    @foreach ($paths as $path)
                        <x-path :path="$path" />{{ $loop->last ? '' : ', ' }}
                    @endforeach
                </p>
            @endforeach
        </div>
    @endif
    @if ($view->but() !== null)
        <p class="word is-{{ $deployment->tone() === 'now' ? 'trouble' : 'soon' }}" role="status">Live;
            {{ $view->but() }}. <a href="#proofs">See which</a></p>
    @endif
    @foreach ($view->setups() as $one)
        <p class="word is-trouble" role="status"><a href="{{ $view->site->liveAddress($one->url) }}" target="_blank"
                rel="noreferrer noopener">Its setup page</a> answers everybody. {{ $one->words() }}</p>
    @endforeach
    @if ($deployment->trouble)
        <p class="word is-trouble" role="alert"><bdi>@words($deployment->trouble)</bdi></p>
    @endif
    @if ($deployment->left_behind)
        <p class="word is-soon" role="status">The old files still lie beside the document root:
            <bdi>@words($deployment->left_behind)</bdi> They are let go of as soon as the server lets that be done.</p>
    @endif
    @if ($deployment->modes_not_set)
        <div class="word is-soon" role="status">
            <p>Not every mode could be set. What has to be writable may not be; set it in the panel of the host.</p>
            <ul>
                @foreach (array_slice($deployment->modes_not_set, 0, 12) as $sentence)
                    <li><bdi>@words($sentence)</bdi></li>
                @endforeach
            </ul>
            @if (count($deployment->modes_not_set) > 12)
                <p>And {{ count($deployment->modes_not_set) - 12 }} more.</p>
            @endif
        </div>
    @endif
    @if ($deployment->unproven)
        <section class="sheet" aria-labelledby="unproven">
            <h2 id="unproven">Put back, not proven
                <small>{{ count($deployment->unproven) }} that did not show what they held before</small></h2>
            <ul class="columns">
                @foreach (array_slice($deployment->unproven, 0, 60) as $name)
                    <li><x-path :path="$name" /></li>
                @endforeach
            </ul>
            @if (count($deployment->unproven) > 60)
                <p class="soft">and {{ count($deployment->unproven) - 60 }} more</p>
            @endif
        </section>
    @endif
    @if ($view->canBeTriedAgain())
        <p class="row-acts"><x-action to="/deployments/{{ $deployment->id }}/again" main>Try again</x-action></p>
    @endif
    <div class="two">
        <div class="stack">
            @includeWhen($inspection !== null, 'parts.inspection')
            <section class="sheet" aria-labelledby="change">
                <h1 id="change">{{ $view->heading() }}
                    @foreach ($view->totals->words() as $total)
                        <x-tag :tone="$total['tone']">{{ $total['words'] }}</x-tag>
                    @endforeach
                </h1>
                <svg class="shares" viewBox="0 0 1000 20" preserveAspectRatio="none" aria-hidden="true">
                    @foreach ($view->totals->shares() as $share)
                        <rect class="is-{{ $share['tone'] }}" x="{{ $share['x'] }}" width="{{ $share['width'] }}"
                            height="20" />
                    @endforeach
                </svg>
                <form class="plan-filter" id="plan-filter" method="get" action="/deployments/{{ $deployment->id }}"
                    hx-get="/deployments/{{ $deployment->id }}/plan" hx-target="#plan-table" hx-swap="outerHTML"
                    hx-trigger="change from:input[type=radio], input delay:200ms from:input[name=name], submit">
                    @foreach ($view->filters() as $value => $words)
                        <label><input type="radio" name="show" value="{{ $value }}"
                                @checked($view->shown() === $value)><span>{{ $words }}</span></label>
                    @endforeach
                    <input class="entry" type="search" name="name" value="{{ $view->tree->filter->name }}"
                        placeholder="part of a name" aria-label="Part of a name" maxlength="200" autocomplete="off">
                    <noscript><button class="act">Show</button></noscript>
                </form>
                @if ($view->isPlanned() && $view->openQuestions() > 1)
                    <div class="row-acts answer-all">
                        <span>{{ number_format($view->openQuestions()) }} questions. All of them:</span>
                        @foreach ($view->answersToAll() as $choice => $words)
                            @include('parts.answer', ['scope' => '', 'isChosen' => false])
                        @endforeach
                    </div>
                @endif
                @include('parts.plan-table', ['tree' => $view->tree, 'rowsAt' => "/deployments/$deployment->id/plan?"])
                @if ($view->isPlanned() && $view->questions() > 0)
                    <p class="soft">An answer holds for this plan. Folders can be answered as one.</p>
                @endif
            </section>
        </div>
        <div class="stack">
            @if ($view->isGoing())
                @include('parts.running')
            @endif
            @includeWhen($view->isPlanned(), 'parts.start')
            @if ($view->clashes() !== [])
                <section class="sheet" aria-labelledby="clash">
                    <h2 id="clash">Differ only in case</h2>
                    @foreach ($view->clashes() as [$one, $other])
                        <p><x-path :path="$one" /> in the package and <x-path :path="$other" /> on the server are two
                            files to this server, and one to many people.</p>
                    @endforeach
                </section>
            @endif
            @if ($view->isPlanned())
                @include('parts.run-settings', ['maySet' => app(\App\People\Access::class)
                    ->leads("/deployments/$deployment->id/settings", 'POST')])
            @endif
            <section class="sheet" aria-labelledby="ba">
                <h2 id="ba">{{ $view->isDone() ? 'How it went' : 'Before and after' }}</h2>
                <dl class="pairs">
                    @if ($view->isProven())
                        <dt>{{ $deployment->wasReadBackOnly() ? 'To be at' : 'Live' }}</dt>
                        <dd><a href="{{ $view->site->liveLink() }}" target="_blank"
                                rel="noreferrer noopener"><x-domain :name="$view->site->domain" /></a></dd>
                        <dt>Outage</dt>
                        <dd>{{ $view->outage() }}</dd>
                        <dt>Replaced</dt>
                        <dd>{{ $deployment->way->laysTree() ? 'by ' : '' }}{{ $deployment->way->verb() }}</dd>
                        <dt>Took</dt>
                        <dd>{{ Amount::seconds($deployment->seconds()) }}, ended
                            {{ $deployment->ended_at->shown('j M H:i:s') }}</dd>
                    @elseif ($view->isDone())
                        <dt>Ended</dt>
                        <dd>{{ $deployment->ended_at?->shown('j M H:i:s') }}</dd>
                    @endif
                    @if ($deployment->root !== null)
                        <dt>Begins in</dt>
                        <dd><x-path :path="$deployment->root" />
                            @if ($view->place->public !== null)
                                <br><span class="soft">visitors come in at {{ $view->place->public }}/; all of it is
                                    compared and backed up</span>
                            @endif
                        </dd>
                    @endif
                    @if ($needs !== null)
                        <dt>Needs</dt>
                        <dd>{{ $needs->needs }}
                            <br><span class="{{ $needs->lacks ? 'is-now-text' : 'soft' }}">{{ $needs->known }}</span>
                        </dd>
                    @endif
                    <dt>{{ $view->isProven() ? 'Sent' : 'To send' }}</dt>
                    <dd>{{ $view->ways->toSend() }}</dd>
                    <dt>Signs in as</dt>
                    <dd><x-path :path="$view->signsInAs()" />
                        @if ($view->userCloses() !== null)
                            <br><span class="soft">{{ $view->userCloses() }}</span>
                        @endif
                    </dd>
                    <dt>Way back</dt>
                    <dd>{{ $view->wayBack() }}</dd>
                </dl>
                <div class="row-acts">
                    @if ($view->canBeUndone())
                        <x-action to="/deployments/{{ $deployment->id }}/undo">Undo this deployment</x-action>
                    @endif
                    @if ($view->canHaveASheet())
                        <x-action to="/deployments/{{ $deployment->id }}/sheet">Sheet for the client</x-action>
                    @endif
                </div>
            </section>
            @if ($view->isPlanned())
                @include('parts.room', ['room' => $view->room()])
            @endif
            @if ($deployment->backup)
                <section class="sheet" aria-labelledby="taken">
                    <h2 id="taken">Backup</h2>
                    <p>Number <a href="/backups?site={{ $view->site->id }}">{{ $deployment->backup_id }}</a>:
                        {{ Amount::files($deployment->backup->files) }},
                        {{ Amount::bytes($deployment->backup->bytes) }}. {{ $deployment->backup->readings() }}. The
                        stored copy was read back {{ $deployment->backup->verified_at->shown('j M H:i:s') }}.</p>
                </section>
            @endif
            @if ($deployment->wasReadBackOnly())
                <section class="sheet" aria-labelledby="proofs">
                    <h2 id="proofs">Proof <small>read back from the server</small></h2>
                    <p>{{ Amount::files($deployment->read_back) }} hold what was sent. Visitors were not
                        asked.</p>
                    @if ($view->canBeProvenLater())
                        <div class="row-acts">
                            <x-action to="/deployments/{{ $deployment->id }}/prove" main>Ask as visitors do</x-action>
                        </div>
                    @endif
                </section>
            @endif
            @if ($deployment->proofs)
                <section class="sheet" aria-labelledby="proofs">
                    <h2 id="proofs">Proof <small>{{ $view->fetchedFrom() }}</small></h2>
                    <ol class="steps">
                        @foreach (array_slice($view->proofs(), 0, 12) as $proof)
                            <li class="{{ $proof['ok'] ? 'is-ok' : 'is-broken' }}">
                                <span><x-path :path="$proof['path']" /></span>
                                <time>{{ $proof['words'] }}</time>
                            </li>
                        @endforeach
                    </ol>
                    @if (count($deployment->proofs) > 12)
                        <p class="soft">and {{ count($deployment->proofs) - 12 }} more</p>
                    @endif
                    @if ($view->visitors() !== null)
                        @include('parts.visitors', ['visitors' => $view->visitors(), 'site' => $view->site])
                    @endif
                    @if ($deployment->notes)
                        <ul class="notes">
                            @foreach ($deployment->notes as $note)
                                <li><bdi>@words($note)</bdi></li>
                            @endforeach
                        </ul>
                    @endif
                    @if ($deployment->addresses > 0)
                        <p class="soft">
                            {{ count($deployment->proofs) }} of {{ $deployment->addresses }} addresses fetched.
                            @if ($deployment->read_back > 0)
                                {{ $deployment->read_back_of > $deployment->read_back
                                    ? number_format($deployment->read_back).' of ' : ''
                                    }}{{ Amount::files($deployment->read_back_of) }} whose bytes no address proves
                                {{ Count::choose($deployment->read_back, 'was', 'were') }} read back from the server.
                            @endif
                        </p>
                    @endif
                </section>
            @endif
            @if ($view->aside->isNotEmpty())
                <section class="sheet" aria-labelledby="held">
                    <h2 id="held">Set aside
                        <small>held until {{ $view->aside->min('held_until')->shown('j M Y') }}</small></h2>
                    <ul>
                        @foreach ($view->aside->take(12) as $file)
                            <li><x-path :path="$file->path" />
                                <span class="soft">{{ Amount::bytes((int) $file->bytes) }}</span></li>
                        @endforeach
                    </ul>
                    @if ($view->aside->count() > 12)
                        <p class="soft">and {{ $view->aside->count() - 12 }} more</p>
                    @endif
                    <x-action to="/deployments/{{ $deployment->id }}/restore">Restore</x-action>
                </section>
            @endif
        </div>
    </div>
</div>
