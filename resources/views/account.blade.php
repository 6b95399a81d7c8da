@use('App\Text\Amount')
@use('App\FtpUsers\UserSheet')
<x-page :title="$account->client->name" place="Accounts">
    <x-slot:where>
        <x-where :client="$account->client">
            <a href="/clients/{{ $account->client_id }}"><b>{{ $account->client->name }}</b></a><i>›</i>
            @if ($account->label !== '')
                <span>{{ $account->label }}</span><i>›</i>
            @endif
            <code>
                {{ $account->host }}</code>
            <x-slot:facts>
                <span>{{ $account->protocol->label() }}{{ $account->protocol->isEncrypted()
                    ? ($account->reached_at === null ? '' : ($account->pin === null ? ', certificate verified'
                        : ', key accepted')) : ', readable on the way' }}</span>
                <span>
                    @if ($account->doesNotConnect())
                        <x-tag tone="now">does not connect</x-tag>
                    @endif
                    {{ $account->reached_at === null ? 'not reached yet'
                        : 'reached '.Amount::ago($account->reached_at) }}
                </span>
                <span>{{ $account->space_limit === null ? 'space not known'
                    : Amount::bytes($account->space_used).' of '.Amount::bytes($account->space_limit) }}</span>
            </x-slot:facts>
        </x-where>
    </x-slot:where>
    <div class="two">
        <div class="stack">
            <section class="sheet" aria-labelledby="sites">
                <h2 id="sites">Sites</h2>
                @if ($account->sites->isEmpty())
                    <p class="calm">No site of this account is known yet.</p>
                @else
                    <table class="facts-table">
                        <thead>
                            <tr>
                                <th>Site</th>
                                <th>Document root</th>
                                <th>Live now</th>
                                <th>Last backup</th>
                                <th></th>
                            </tr>
                        </thead>
                        <tbody>
                            @foreach ($account->sites as $site)
                                <tr>
                                    <td><a class="strong" href="{{ $site->liveLink() }}" target="_blank"
                                            rel="noreferrer noopener">{{ $site->domain }}</a> <button type="button"
                                            class="link" data-copy="{{ $site->base_url }}/"
                                            aria-label="copy address of {{ $site->domain }}">copy address</button>
                                        @foreach ($site->aliases as $alias)
                                            <div class="soft">also {{ $alias }}</div>
                                            @endforeach @if ($site->client_id !== null
                                                && $site->client_id !== $account->client_id)
                                                <div><x-tag tone="soon">of {{ $site->client->name }}</x-tag></div>
                                                @endif @foreach ($site->mounts as $mount)
                                                    <div class="soft">{{ $mount['path'] }} from
                                                        <code>{{ $mount['directory'] }}</code></div>
                                                @endforeach
                                    </td>
                                    <td><code>{{ $site->document_root }}</code> <a class="link"
                                            href="/sites/{{ $site->id }}/edit"
                                            aria-label="change {{ $site->domain }}">change</a><br>
                                        @if ($site->root_proven_at !== null)
                                            <span class="proof">proven
                                            {{ $site->root_proven_at->format('j M H:i') }}</span>@else<span
                                                class="soft">not proven</span>
                                        @endif
                                        <form method="post" action="/sites/{{ $site->id }}/prove-root"
                                            class="act-form">@csrf<button class="link"
                                                data-once>{{ $site->root_proven_at === null ? 'Prove it'
                                                    : 'Prove again' }}</button>
                                        </form>
                                    </td>
                                    <td>
                                        @if ($site->placeholder)
                                            <x-tag tone="later">the host’s placeholder</x-tag>
                                        @elseif ($site->lastDeployment !== null)
                                            <a
                                                href="/deployments/{{ $site->lastDeployment->id }}">{{
                                                    $site->lastDeployment->title() }}</a><br><span
                                            class="soft">{{ $site->lastDeployment->ended_at->format('j M H:i')
                                                }}</span>@else<span
                                                class="soft">{{ $site->placeholder === null ? 'not looked at yet'
                                                    : 'a site from before' }}</span>
                                        @endif
                                    </td>
                                    <td>
                                        @if ($site->last_backup_at !== null)
                                            <a
                                            href="/backups?site={{ $site->id }}">{{ Amount::ago($site->last_backup_at)
                                                }}</a>@else<x-tag
                                                tone="soon">none</x-tag>
                                        @endif
                                    </td>
                                    <td class="acts"><x-action to="/deployments/new?site={{ $site->id }}"
                                            method="GET" :main="$site->placeholder === true"
                                            aria-label="Deploy to {{ $site->domain }}">Deploy</x-action> <x-action
                                            to="/sites/{{ $site->id }}/backups"
                                            aria-label="Back up {{ $site->domain }}">Back up</x-action></td>
                                </tr>
                            @endforeach
                        </tbody>
                    </table>
                @endif
                <div class="row-acts"><x-action to="/accounts/{{ $account->id }}/sites/new" method="GET">Add a
                        site</x-action></div>
            </section>
            @if ($map->isWide())
                @include('parts.ladder')
            @else
                @include('parts.reach-sheet')
            @endif
        </div>
        <div class="stack">
            <section class="sheet" aria-labelledby="users">
                @php([$ended, $open] = $account->ftpUsers->partition->hasEnded())
                <header class="head">
                    <h2 id="users">FTP users
                        <small>{{ $open->isEmpty() ? 'none open' : $open->count().' open' }}</small></h2> <x-action
                        to="/accounts/{{ $account->id }}/ftp-users/new" method="GET" main>New FTP user</x-action>
                </header>
                @if ($open->isEmpty())
                    <p class="calm">Nobody but the account itself can sign in.</p>
                @endif
                <ul class="users">
                    @foreach ($open->sortByDesc('id')->sortBy(fn($user) => $user->isProven() && ! $user->isOverdue()
                        ? 1 : 0)->take(6) as $user)
                        @php([$word, $tone] = UserSheet::stands($user))
                        <li>
                            <div class="user-head"><a href="/ftp-users/{{ $user->id }}"><code
                                        class="strong">{{ $user->login }}</code></a> <x-tag
                                    :tone="$tone">{{ $word }}</x-tag></div>
                            <p class="soft">{{ $user->directory }} · {{ $user->reach()->sentence() }}</p>
                            <p class="soft">{{ $user->isOverdue() ? 'should have closed' : 'closes' }}
                                {{ $user->endsWords() }}@if ($user->purpose !== '')
                                    · {{ $user->purpose }}
                                    @endif @if ($user->idleDays() >= config('cellarium.idle_days'))
                                        · idle {{ $user->idleDays() }} days
                                    @endif
                            </p>
                            @if ($user->trouble)
                                <p class="word is-trouble">{{ $user->trouble }}</p>
                            @endif
                        </li>
                    @endforeach
                </ul>
                @if ($open->count() > 6)
                    <p><a href="/ftp-users?q={{ urlencode($account->host) }}">All {{ $open->count() }} in the list</a>
                    </p>
                @endif
                @if ($ended->isNotEmpty())
                    <details>
                        <summary>{{ $ended->count() }} closed or removed</summary>
                        <ul class="users">
                            @foreach ($ended->sortByDesc('closed_at')->take(30) as $user)
                                <li>
                                    <div class="user-head"><a
                                            href="/ftp-users/{{ $user->id }}"><code>{{ $user->login }}</code></a>
                                        <span class="soft">{{ UserSheet::stands($user)[0] }}
                                            {{ $user->closed_at?->format('j M H:i') }}</span></div>
                                </li>
                            @endforeach
                        </ul>
                    </details>
                @endif
            </section>
            @unless ($map->isWide())
                @include('parts.ladder')
            @endunless
        </div>
    </div>
    @if ($map->isWide())
        <div class="below">@include('parts.reach-sheet')</div>
    @endif
</x-page>
