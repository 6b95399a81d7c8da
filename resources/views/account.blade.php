@use('App\Accounts\AccountView')
@use('App\FtpUsers\FtpUserView')
@use('App\Text\Amount')
<x-page :title="$account->client->name" place="Accounts">
    <x-slot:where>
        <x-where :client="$account->client">
            <x-link to="/clients/{{ $account->client_id }}"><b>{{ $account->client->name }}</b></x-link><i>›</i>
            @if ($account->label !== '')
                <span>{{ $account->label }}</span><i>›</i>
            @endif
            <x-path :path="$account->host" />
            <x-slot:facts>
                <span>{{ $view->protocol() }}</span>
                <span>
                    @if ($account->doesNotConnect())
                        <x-tag tone="now">does not connect</x-tag>
                    @endif
                    {{ $view->reached() }}
                </span>
                <span>{{ $view->space() }}</span>
            </x-slot:facts>
        </x-where>
    </x-slot:where>
    <div class="two">
        <div class="stack">
            <section class="sheet" aria-labelledby="sites">
                <h2 id="sites">Sites</h2>
                @if ($account->sites->isEmpty())
                    <p class="calm">No site of this account is known yet. Add the domains that are served from it.</p>
                @else
                    <x-table caption="Sites of this account">
                        <thead>
                            <tr>
                                <th scope="col">Site and document root</th>
                                <th scope="col">Live now</th>
                                <th scope="col">Last backup</th>
                                <th scope="col"></th>
                            </tr>
                        </thead>
                        <tbody>
                            @foreach ($account->sites as $site)
                                <tr>
                                    <td>
                                        <a class="strong" href="/sites/{{ $site->id }}"><x-domain
                                                :name="$site->domain" /></a>
                                        <div><x-path :path="$site->document_root" /></div>
                                        @if ($site->root_proven_at !== null)
                                            <span class="proof">proven
                                                {{ $site->root_proven_at->shown('j M H:i') }}</span>
                                        @else
                                            <span class="soft">not proven</span>
                                        @endif
                                        <form method="post" action="/sites/{{ $site->id }}/prove-root"
                                            class="act-form is-inline">@csrf<button class="link"
                                                aria-label="prove{{ $site->root_proven_at === null ? ''
                                                    : ' again' }}: document root of {{ $site->domain }}"
                                                data-once>prove{{ $site->root_proven_at === null ? ''
                                                    : ' again' }}</button>
                                        </form>
                                        @foreach ($site->aliases as $alias)
                                            <div class="soft">also <x-domain :name="$alias" /></div>
                                        @endforeach
                                        @if ($site->client_id !== null && $site->client_id !== $account->client_id)
                                            <div><x-tag tone="soon">of {{ $site->client->name }}</x-tag></div>
                                        @endif
                                        @foreach ($account->sharing($site->applicationRoot()) as $shared)
                                            <div class="soft">also reached as
                                                <x-link to="/accounts/{{ $shared->other_id }}">{{ $shared->other->login
                                                    }} at {{ $shared->other->host }}</x-link></div>
                                        @endforeach
                                        @foreach ($site->mounts as $mount)
                                            <div class="soft"><x-path :path="$mount['path']" /> from
                                                <x-path :path="$mount['directory']" /></div>
                                        @endforeach
                                    </td>
                                    <td>
                                        @if ($site->placeholder)
                                            <x-tag tone="later">the host’s placeholder</x-tag>
                                        @elseif ($site->lastDeployment !== null)
                                            <a
                                                href="/deployments/{{ $site->lastDeployment->id }}">{{
                                                    $site->lastDeployment->title() }}</a><br>
                                            <span
                                                class="soft">{{ $site->lastDeployment->ended_at->shown('j M H:i')
                                                    }}</span>
                                        @else
                                            <span class="soft">{{ $site->placeholder === null ? 'not looked at yet'
                                                : 'a site from before' }}</span>
                                        @endif
                                    </td>
                                    <td data-label="last backup">
                                        @if ($site->last_backup_at !== null)
                                            <a
                                                href="/backups?site={{ $site->id }}">{{
                                                    Amount::ago($site->last_backup_at) }}</a>
                                        @else
                                            <x-tag tone="soon">none</x-tag>
                                        @endif
                                    </td>
                                    <td class="acts">
                                        <x-action to="/deployments/new?site={{ $site->id }}" method="GET"
                                            :main="$site->placeholder === true"
                                            aria-label="Deploy to {{ $site->domain }}">Deploy</x-action>
                                        <x-action to="/sites/{{ $site->id }}/backups"
                                            aria-label="Back up {{ $site->domain }}">Back up</x-action>
                                    </td>
                                </tr>
                            @endforeach
                        </tbody>
                    </x-table>
                @endif
                <div class="row-acts">
                    <x-action to="/accounts/{{ $account->id }}/sites/new" method="GET">Add a site</x-action>
                    <x-action to="/accounts/{{ $account->id }}/anew" method="GET">Make anew at another host</x-action>
                </div>
            </section>
            @if ($map->isWide())
                @include('parts.ladder')
            @else
                @include('parts.reach-sheet')
            @endif
        </div>
        <div class="stack">
            @unless ($map->isWide())
                @include('parts.ladder')
            @endunless
            <section class="sheet" aria-labelledby="users">
                <header class="head">
                    <h2 id="users">FTP users
                        <small>{{ $view->open->isEmpty() ? 'none open' : $view->open->count().' open' }}</small></h2>
                    <x-action to="/accounts/{{ $account->id }}/ftp-users/new" method="GET" main>New FTP user</x-action>
                </header>
                @if ($view->open->isEmpty())
                    <p class="calm">Nobody but the account itself can sign in.</p>
                @endif
                <ul class="users">
                    @foreach ($view->usersShown() as $user)
                        @php([$word, $tone] = FtpUserView::stands($user))
                        <li>
                            <div class="user-head">
                                <a class="strong" href="/ftp-users/{{ $user->id }}"><x-path :path="$user->login" /></a>
                                <x-tag :tone="$tone">{{ $word }}</x-tag>
                            </div>
                            <p class="soft"><x-path :path="$user->directory" /> · @words($user->reach()->sentence())</p>
                            <p class="soft">{{ AccountView::facts($user) }}</p>
                            @if ($user->trouble)
                                <p class="word is-trouble">{{ $user->trouble }}</p>
                            @endif
                        </li>
                    @endforeach
                </ul>
                @if ($view->open->count() > $view->usersShown()->count())
                    <p><a href="/ftp-users?q={{ urlencode($account->host) }}">All {{ $view->open->count() }} in the
                            list</a></p>
                @endif
                @if ($view->ended->isNotEmpty())
                    <details>
                        <summary>{{ $view->ended->count() }} closed or removed</summary>
                        <ul class="users">
                            @foreach ($view->ended->sortByDesc('closed_at')->take(30) as $user)
                                <li>
                                    <div class="user-head">
                                        <a href="/ftp-users/{{ $user->id }}"><x-path :path="$user->login" /></a>
                                        <span class="soft">{{ FtpUserView::stands($user)[0] }}
                                            {{ $user->closed_at?->shown('j M H:i') }}</span>
                                    </div>
                                </li>
                            @endforeach
                        </ul>
                    </details>
                @endif
            </section>
        </div>
    </div>
    @if ($map->isWide())
        <div class="below">@include('parts.reach-sheet')</div>
    @endif
</x-page>
