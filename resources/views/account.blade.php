@use('App\View\Amount')
@use('App\View\ReachMap')
@use('Cellarium\Core\Credential\PasswordMaker')
<x-page :title="$account->client->name" place="Accounts">
    <x-slot:where>
        <x-where :client="$account->client">
            <a href="/clients/{{ $account->client_id }}"><b>{{ $account->client->name }}</b></a><i>›</i>@if ($account->label !== '')<span>{{ $account->label }}</span><i>›</i>@endif<code>{{ $account->host }}</code>
            <x-slot:facts>
                <span>{{ $account->protocol->label() }}{{ $account->protocol->isEncrypted() ? ($account->reached_at === null ? '' : ($account->pin === null ? ', certificate verified' : ', key accepted')) : ', readable on the way' }}</span>
                <span>@if ($account->doesNotConnect())<x-tag tone="now">does not connect</x-tag> @endif{{ $account->reached_at === null ? 'not reached yet' : 'reached '.Amount::ago($account->reached_at) }}</span>
                <span>{{ $account->space_limit === null ? 'space not known' : Amount::bytes($account->space_used).' of '.Amount::bytes($account->space_limit) }}</span>
            </x-slot:facts>
        </x-where>
    </x-slot:where>
    <div class="two">
        <div class="stack">
            @if ($handed !== null)
                <section class="sheet hand-over" aria-labelledby="handed">
                    <h2 id="handed">Settings to hand over <small>shown this once</small></h2>
                    <dl class="pairs">
                        <dt>Host</dt><dd><code>{{ $handed['host'] }}</code></dd>
                        <dt>Port</dt><dd><code>{{ $handed['port'] }}</code></dd>
                        <dt>Protocol</dt><dd>{{ $handed['protocol'] }}</dd>
                        <dt>Login</dt><dd><code>{{ $handed['login'] }}</code></dd>
                        <dt>Password</dt><dd><code id="handed-password">{{ $handed['password'] }}</code></dd>
                        <dt>Lands in</dt><dd><code>{{ $handed['directory'] }}</code></dd>
                        <dt>As an address</dt><dd><code>{{ $handed['uri'] }}</code></dd>
                    </dl>
                </section>
            @endif
            <section class="sheet" aria-labelledby="sites">
                <h2 id="sites">Sites</h2>
                @if ($account->sites->isEmpty())<p class="calm">No site of this account is known yet.</p>@else
                <table class="facts-table">
                    <thead><tr><th>Site</th><th>Document root</th><th>Live now</th><th>Last backup</th><th></th></tr></thead>
                    <tbody>
                        @foreach ($account->sites as $site)
                            <tr>
                                <td><a class="strong" href="{{ $site->liveLink() }}" target="_blank" rel="noreferrer noopener">{{ $site->domain }}</a> <button type="button" class="link" data-copy="{{ $site->base_url }}/" aria-label="copy address of {{ $site->domain }}">copy address</button>@foreach ($site->aliases as $alias)<div class="soft">also {{ $alias }}</div>@endforeach @foreach ($site->mounts as $mount)<div class="soft">{{ $mount['path'] }} from <code>{{ $mount['directory'] }}</code></div>@endforeach</td>
                                <td><code>{{ $site->document_root }}</code> <a class="link" href="/sites/{{ $site->id }}/edit" aria-label="change {{ $site->domain }}">change</a><br>
                                    @if ($site->root_proven_at !== null)<span class="proof">proven {{ $site->root_proven_at->format('j M H:i') }}</span>@else<span class="soft">not proven</span>@endif
                                    <form method="post" action="/sites/{{ $site->id }}/prove-root" class="act-form">@csrf<button class="link" data-once>{{ $site->root_proven_at === null ? 'Prove it' : 'Prove again' }}</button></form></td>
                                <td>@if ($site->placeholder)<x-tag tone="later">the host’s placeholder</x-tag>@elseif ($site->lastDeployment !== null)<a href="/deployments/{{ $site->lastDeployment->id }}">{{ $site->lastDeployment->title() }}</a><br><span class="soft">{{ $site->lastDeployment->ended_at->format('j M H:i') }}</span>@else<span class="soft">{{ $site->placeholder === null ? 'not looked at yet' : 'a site from before' }}</span>@endif</td>
                                <td>@if ($site->lastBackup !== null)<a href="/backups?site={{ $site->id }}">{{ Amount::ago($site->lastBackup->verified_at) }}</a>@else<x-tag tone="soon">none</x-tag>@endif</td>
                                <td class="acts"><x-action to="/deployments/new?site={{ $site->id }}" method="GET" :main="$site->placeholder === true" aria-label="Deploy to {{ $site->domain }}">Deploy</x-action> <x-action to="/sites/{{ $site->id }}/backups" aria-label="Back up {{ $site->domain }}">Back up</x-action></td>
                            </tr>
                        @endforeach
                    </tbody>
                </table>
                @endif
                <div class="row-acts"><x-action to="/accounts/{{ $account->id }}/sites/new" method="GET">Add a site</x-action></div>
            </section>
            <section class="sheet" aria-labelledby="reach">
                <h2 id="reach">Reach <small>which login can touch which directory, proven by signing in as each</small></h2>
                @if ($account->tree === null)
                    <p class="calm">The directories of this account were not looked at yet. Connect to see them.</p>
                @else
                    @include('parts.reach-map')
                @endif
            </section>
        </div>
        <div class="stack">
            @include('parts.ladder')
            <section class="sheet" aria-labelledby="new-user">
                <h2 id="new-user">New FTP user</h2>
                @if ($account->control_url === null)
                    <p class="calm">This host has no control service. Create the user at the provider.</p>
                @else
                <form method="post" action="/accounts/{{ $account->id }}/ftp-users" class="pairs-form" data-busy>
                    @csrf
                    @foreach ($errors->all() as $message)<p class="word is-trouble" role="alert">{{ $message }}</p>@endforeach
                    <label for="name">Login</label>
                    <div class="affix"><input class="entry is-mono" id="name" name="name" value="{{ old('name') }}" placeholder="north-build" required maxlength="32" autocomplete="off" spellcheck="false"><span>{{ '@'.($account->sites->first()->domain ?? $account->host) }}</span></div>
                    <label for="directory">Directory</label>
                    <select class="entry is-mono" id="directory" name="directory" hx-get="/accounts/{{ $account->id }}/reach" hx-target="#reach-preview" hx-trigger="change, load">
                        @php($chosen = old('directory', $account->sites->first()->document_root ?? '/'))
                        @foreach ($map->rows as $row)<option value="{{ $row['path'] }}" @selected($row['path'] === $chosen)>{{ $row['path'] }}</option>@endforeach
                    </select>
                    <span class="name">Reaches</span>
                    <div id="reach-preview" class="soft" aria-live="polite">…</div>
                    <label for="closes">Closes</label>
                    <input class="entry" id="closes" name="closes" type="datetime-local" value="{{ old('closes', now()->hour < 17 ? now()->setTime(18, 0)->format('Y-m-d\TH:i') : now()->endOfDay()->format('Y-m-d\TH:i')) }}" required>
                    <label for="megabytes">Space, MB</label>
                    <input class="entry" id="megabytes" name="megabytes" type="number" min="1" value="{{ old('megabytes') }}" placeholder="no limit of its own">
                    <label for="purpose">For</label>
                    <input class="entry" id="purpose" name="purpose" value="{{ old('purpose') }}" placeholder="whom or which job" maxlength="200">
                    <span class="name">Password</span>
                    <div class="soft">made for it, {{ PasswordMaker::bits() }} bits; handed over once</div>
                    <div class="row-acts"><button class="act is-main" data-once>Create and prove</button></div>
                </form>
                @endif
            </section>
            @if ($account->ftpUsers->isNotEmpty())
            <section class="sheet" aria-labelledby="users">
                <h2 id="users">FTP users</h2>
                <ul class="users">
                    @foreach ($account->ftpUsers->sortByDesc('id')->sortBy(fn ($user) => $user->hasEnded() ? 1 : 0) as $user)
                        <li>
                            <div class="user-head"><code class="strong">{{ $user->login }}</code>
                                @if ($user->hasEnded())<x-tag>closed</x-tag>@elseif ($user->isOverdue())<x-tag tone="now">past its date</x-tag>@elseif ($user->state === 'open')<x-tag tone="proven">open</x-tag>@else<x-tag tone="soon">{{ str_replace('_', ' ', $user->state) }}</x-tag>@endif</div>
                            <p class="soft">{{ $user->directory }}@if ($seen = $account->addressOf($user->path())) <button type="button" class="link" data-copy="{{ $seen }}" aria-label="copy address of {{ $user->directory }}">copy address</button>@endif · {{ $user->reach()->sentence() }}@if ($user->purpose !== '') · {{ $user->purpose }}@endif</p>
                            <p class="soft">@if ($user->hasEnded())closed {{ $user->closed_at?->format('j M H:i') }}@else closes {{ $user->closes_at?->format('j M H:i') ?? 'by hand' }}@endif @if ($user->handed_over_at) · handed over {{ $user->handed_over_at->format('j M H:i') }}@endif</p>
                            @if ($user->trouble)<p class="word is-trouble">{{ $user->trouble }}</p>@endif
                            @if ($user->is($last))
                                <ol class="steps">@foreach ($user->proofs->sortBy('id')->take(-6) as $proof)<li class="{{ $proof->ok ? 'is-ok' : 'is-broken' }}"><span>{{ $proof->sentence }}@if (! $proof->ok && $proof->next)<em>{{ $proof->next }}</em>@endif</span><time>{{ $proof->made_at->isToday() ? $proof->made_at->format('H:i:s') : $proof->made_at->format('j M H:i') }}</time></li>@endforeach</ol>
                            @endif
                            @unless ($user->hasEnded())
                                <div class="row-acts">
                                    @if ($user->handed_over_at === null)<x-action to="/ftp-users/{{ $user->id }}/hand-over" aria-label="Hand over the settings of {{ $user->login }}">Hand over</x-action>@endif
                                    <x-action to="/ftp-users/{{ $user->id }}/prove" aria-label="Prove the reach of {{ $user->login }}">Prove</x-action>
                                    <x-action to="/ftp-users/{{ $user->id }}/close" aria-label="Close {{ $user->login }}">Close</x-action>
                                </div>
                            @endunless
                        </li>
                    @endforeach
                </ul>
            </section>
            @endif
        </div>
    </div>
</x-page>
