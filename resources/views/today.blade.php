@use('App\View\Amount')
<x-page title="Today" place="Today">
    <div class="today">
        <section aria-labelledby="hand">
            <h1 id="hand">Needs a hand <small>{{ $troubled === 0 ? 'nothing just now' : "$troubled of $sites sites" }}</small></h1>
            <ul class="concerns">
                @foreach ($concerns as $concern)
                    <li class="sheet concern">
                        <div>
                            <h2>{{ $concern->title }} <x-tag :tone="$concern->urgency->tone()">{{ $concern->urgency->label() }}</x-tag></h2>
                            <p class="about">{{ $concern->about }}</p>
                            <p class="evidence">{{ $concern->evidence }}</p>
                        </div>
                        <x-action :to="$concern->url" :method="$concern->method" aria-label="{{ $concern->action }}: {{ $concern->about }}">{{ $concern->action }}</x-action>
                    </li>
                @endforeach
            </ul>
            @if ($concerns === [])<p class="sheet calm">Every site has a backup that was read back, no FTP user is open past its date, and no placeholder is showing.</p>@endif
        </section>
        <section class="sheet shelves" aria-labelledby="shelves">
            <header>
                <h1 id="shelves">Shelves <small>one jar a site, one shelf a client; filled to the share of space it uses</small></h1>
                <button class="act is-quiet" data-toggle="shelf-table" data-other="shelf-drawing" aria-expanded="false">As a table</button>
            </header>
            @if ($shelves->isEmpty())<p class="calm">No accounts yet.</p>@endif
            <div id="shelf-drawing">
                <ul class="rack">
                    @foreach ($shelves as $shelf)
                        <li>
                            <svg class="band" width="6" height="44" aria-hidden="true"><rect width="6" height="44" rx="2" fill="{{ $shelf->client->colour }}"/></svg>
                            <div class="whose"><b>{{ $shelf->client->name }}</b><small>{{ count($shelf->jars) === 1 ? '1 site' : count($shelf->jars).' sites' }}</small></div>
                            <div class="jars">@foreach ($shelf->jars as $jar)<x-jar :jar="$jar"/>@endforeach</div>
                        </li>
                    @endforeach
                </ul>
                <ul class="key" aria-label="What the jars mean">
                    <li>solid lid: live page proven</li><li>raised lid: an FTP user is open</li><li>hatching: backup overdue</li><li>dashed: nothing deployed</li>
                </ul>
            </div>
            <div id="shelf-table" hidden>
                <table class="facts-table">
                    <thead><tr><th>Site</th><th>Client</th><th>Used</th><th>Live page</th><th>Last backup</th><th>FTP users</th></tr></thead>
                    <tbody>
                        @foreach ($shelves as $shelf)@foreach ($shelf->jars as $jar)
                            <tr><td><a href="/accounts/{{ $jar->account->id }}">{{ $jar->site->domain }}</a></td><td>{{ $shelf->client->name }}</td><td>{{ Amount::bytes($jar->site->bytes) }}</td>
                                <td>{{ $jar->empty ? 'nothing deployed' : ($jar->proven ? 'proven '.$jar->site->live_proven_at->format('j M') : 'not proven') }}</td>
                                <td>{{ $jar->site->lastBackup?->verified_at?->format('j M Y') ?? 'none' }}</td><td>{{ $jar->open ? 'open' : 'none open' }}</td></tr>
                        @endforeach @endforeach
                    </tbody>
                </table>
            </div>
        </section>
    </div>
</x-page>
