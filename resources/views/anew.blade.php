@use('Cellarium\Core\Words\Count')
@use('App\Text\Amount')
<x-page :title="'Make anew: '.$account->host" place="Accounts" wide>
    <x-slot:where><x-where :client="$account->client"><a
                href="/clients/{{ $account->client_id }}"><b>{{ $account->client->name }}</b></a><i>›</i><a
                href="/accounts/{{ $account->id }}"><x-path :path="$account->host" /></a><i>›</i>make
            anew</x-where></x-slot:where>
    <div class="stack">
    <section class="sheet" aria-labelledby="anew">
        <h1 id="anew">Make this account anew at another host</h1>
        <p class="soft">Sites go there with their history and are filled from their newest backups, each by a plan that
            you look at first. FTP users are made with new passwords. Nothing is touched at {{ $account->host }}.</p>
        @foreach ($errors->all() as $message)
            <p class="word is-trouble" role="alert">{{ $message }}</p>
        @endforeach
        <form method="get" action="/accounts/{{ $account->id }}/anew" class="row-acts">
            <label for="to">The account there</label>
            <select class="entry is-choice" id="to" name="to" required>
                <option value="">choose</option>
                @foreach ($others as $other)
                    <option value="{{ $other->id }}" @selected($to?->id === $other->id)>{{ $other->title() }},
                        {{ $other->login }}</option>
                @endforeach
            </select>
            <button class="act">Compare</button>
            <x-action to="/accounts/new" method="GET">Add it first</x-action>
        </form>
    </section>
    @if ($there !== [])
        <section class="sheet" aria-labelledby="there">
            <h2 id="there">There already <small>{{ count($there) }}</small></h2>
            <x-table caption="Sites that are there already" class="is-roomy">
                <thead>
                    <tr>
                        <th scope="col">Site</th>
                        <th scope="col">Its files</th>
                        <th scope="col">Served from there</th>
                    </tr>
                </thead>
                <tbody>
                    @foreach ($there as ['site' => $site, 'plan' => $plan])
                        <tr>
                            <td><a class="strong" href="/sites/{{ $site->id }}"><x-domain :name="$site->domain" /></a>
                                <div><x-path :path="$site->document_root" /></div>
                            </td>
                            <td data-label="its files">
                                @if ($plan === null)
                                    <span class="is-now-text">no plan yet: bring a backup back</span>
                                    <a href="/backups?site={{ $site->id }}">its backups</a>
                                @else
                                    <x-tag :tone="$plan->tone()">{{ $plan->label() }}</x-tag>
                                    <a href="/deployments/{{ $plan->id }}">{{ $plan->title() }}</a>
                                @endif
                            </td>
                            <td data-label="served from there">
                                @if ($site->live_proven_at !== null)
                                    <x-tag tone="proven">live {{ $site->live_proven_at->shown('j M H:i') }}</x-tag>
                                @elseif ($plan !== null && \App\Runs\LaterProof::isDue($plan))
                                    <x-action to="/deployments/{{ $plan->id }}/prove"
                                        aria-label="Ask as visitors do for {{ $site->domain }}">Ask as visitors
                                        do</x-action>
                                @elseif ($site->root_proven_at !== null)
                                    <x-tag tone="proven">token answered
                                        {{ $site->root_proven_at->shown('j M H:i') }}</x-tag>
                                @else
                                    <span class="soft">not proven</span>
                                    <x-action to="/sites/{{ $site->id }}/prove-root"
                                        aria-label="Prove where {{ $site->domain }} is served from">Prove</x-action>
                                @endif
                            </td>
                        </tr>
                    @endforeach
                </tbody>
            </x-table>
            @if ($ready > 0)
                <form method="post" action="/accounts/{{ $account->id }}/anew/start" class="row-acts">
                    @csrf
                    <input type="hidden" name="to" value="{{ $to->id }}">
                    <button class="act is-main" data-once>Start {{ Count::choose($ready, 'the plan that waits',
                        "the $ready plans that wait") }}</button>
                    <span class="soft">Each backs up what is there first.</span>
                </form>
            @endif
        </section>
    @endif
    @if ($move !== null)
        <form method="post" action="/accounts/{{ $account->id }}/anew" class="stack">
            @csrf
            <input type="hidden" name="to" value="{{ $to->id }}">
            <section class="sheet" aria-labelledby="sites">
                <h2 id="sites">Sites <small>{{ count($move->sites) }}</small></h2>
                @if ($move->sites === [])
                    <p class="calm">No site is left in this account.</p>
                @else
                    <x-table caption="Sites that move" class="is-roomy">
                        <thead>
                            <tr>
                                <th scope="col">Site</th>
                                <th scope="col">Begins in, there</th>
                                <th scope="col">Filled from</th>
                                <th scope="col">Goes along</th>
                            </tr>
                        </thead>
                        <tbody>
                            @foreach ($move->sites as $one)
                                <tr>
                                    <td><label class="check"><input type="checkbox" name="sites[]"
                                                value="{{ $one->site->id }}" @checked($one->canBeMade())
                                                @disabled($one->backup === null)>
                                            <span><b><x-domain :name="$one->site->domain" /></b><br><x-path
                                                    :path="(string) $one->from" /></span></label></td>
                                    <td data-label="begins in, there"><input class="entry is-mono"
                                            name="directories[{{ $one->site->id }}]"
                                            aria-label="Where {{ $one->site->domain }} begins there"
                                            value="@exactly((string) $one->to)" maxlength="1000" spellcheck="false">
                                        @if ($one->objection !== null)
                                            <p class="is-now-text">{{ $one->objection }}</p>
                                        @endif
                                    </td>
                                    <td data-label="filled from">
                                        @if ($one->backup === null)
                                            <span class="is-now-text">no verified backup</span>
                                        @else
                                            <a href="/backups/{{ $one->backup->id }}">backup of
                                                {{ $one->backup->verified_at->shown('j M H:i') }}</a>
                                            <div class="soft">{{ $one->backup->holds() }}</div>
                                            <div class="soft">{{ $one->backup->databasesHeld() }}</div>
                                        @endif
                                    </td>
                                    <td data-label="goes along">
                                        @foreach ($one->destinations as $destination)
                                            <div>{{ $destination['name'] }}: <x-path
                                                    :path="(string) ($destination['to'] ?? $destination['from'])" />
                                            </div>
                                        @endforeach
                                        @foreach ($one->mounts as $mount)
                                            <div><x-path :path="$mount['path']" /> from <x-path
                                                    :path="(string) $mount['to']" />{{ $mount['backup'] === null
                                                        ? ', no backup of its own' : '' }}</div>
                                        @endforeach
                                        @if ($one->destinations === [] && $one->mounts === [])
                                            <span class="soft">its history</span>
                                        @endif
                                    </td>
                                </tr>
                            @endforeach
                        </tbody>
                    </x-table>
                @endif
            </section>
            <section class="sheet" aria-labelledby="users">
                <h2 id="users">FTP users <small>{{ count($move->users) }}</small></h2>
                @if ($move->users === [])
                    <p class="calm">No FTP user is open in this account.</p>
                @else
                    <x-table caption="FTP users that move" class="is-roomy">
                        <thead>
                            <tr>
                                <th scope="col">User</th>
                                <th scope="col">Lands in, there</th>
                                <th scope="col">Closes</th>
                            </tr>
                        </thead>
                        <tbody>
                            @foreach ($move->users as $one)
                                <tr>
                                    <td><label class="check"><input type="checkbox" name="users[]"
                                                value="{{ $one->user->id }}" @checked($one->canBeMade())
                                                @disabled(! $one->canBeMade())>
                                            <span><b><x-path :path="$one->name" /></b><br>{{
                                                $one->user->purpose }}</span></label></td>
                                    <td data-label="lands in, there">
                                        @if ($one->isThere)
                                            <x-tag tone="proven">there already</x-tag>
                                        @elseif ($one->objection !== null)
                                            <span class="is-now-text">{{ $one->objection }}</span>
                                        @else
                                            <x-path :path="(string) $one->to" />
                                        @endif
                                    </td>
                                    <td data-label="closes">{{ $one->user->endsWords() }}</td>
                                </tr>
                            @endforeach
                        </tbody>
                    </x-table>
                @endif
            </section>
            @if ($move->sites !== [] || $move->users !== [])
                <div class="row-acts">
                    <button class="act is-main" data-once>Make what is marked at {{ $to->host }}</button>
                    <span class="soft">The old FTP users stay open until you close them.</span>
                </div>
            @endif
        </form>
    @endif
    </div>
</x-page>
