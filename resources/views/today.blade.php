@use('App\Text\Amount')
<x-page title="Today" place="Today">
    <div class="today">
        <section aria-labelledby="hand">
            <h1 id="hand">Needs a hand
                <small>{{ $troubled === 0 ? 'nothing just now' : number_format($troubled).($troubled === 1
                    ? ' concern over ' : ' concerns over ').number_format($sites).' sites' }}</small>
            </h1>
            @if ($changed->isNotEmpty())
                <div class="sheet changed">
                    <h2>Changed since yesterday</h2>
                    <ul>
                        @foreach ($changed as $entry)
                            <li><time>{{ $entry->at->shown('H:i') }}</time> <a
                                    href="/accounts/{{ $entry->account_id }}">@words($entry->sentence)</a></li>
                        @endforeach
                    </ul>
                </div>
            @endif
            <ul class="concerns">
                @include('parts.concerns')
                @if ($only !== null)
                    <li class="folded"><a href="/">All concerns</a></li>
                @endif
            </ul>
            @if ($sites === 0)
                <p class="sheet">
                    @leads('/accounts/new')
                        <a href="/accounts/new">Add an account</a> or <a href="/accounts/import">import a list</a>.
                    @else
                        A maintainer adds accounts.
                    @endleads
                    What needs a hand appears here by itself.</p>
            @elseif ($groups === [])
                <p class="sheet calm">Every account connects, every site has a backup that was read back, no FTP user is
                    open past its date, and no placeholder is showing.</p>
            @endif
        </section>
        <section class="sheet shelves" aria-labelledby="shelves">
            <header>
                <h1 id="shelves">Shelves <small>one jar a site, one shelf a client; filled to the share of space it
                        uses</small></h1>
                <a class="act is-quiet"
                    href="/?as={{ $as === 'table' ? 'drawing' : 'table' }}">{{ $as === 'table' ? 'As shelves'
                        : 'As a table' }}</a>
            </header>
            <form class="sieve" action="/" method="get" hx-get="/shelves"
                hx-target="#{{ $as === 'table' ? 'shelf-rows' : 'rack' }}" hx-trigger="input delay:200ms"
                hx-swap="innerHTML" hx-sync="this:replace">
                <input type="hidden" name="as" value="@exactly($as)">
                <label class="is-sr-only" for="words">Client or domain</label><input class="entry" id="words"
                    name="words" type="search" value="@exactly($rack->words)" placeholder="Client or domain"
                    autocomplete="off">
                @if ($clientGroups->isNotEmpty())<label class="is-sr-only"
                        for="group">Group</label><select class="entry" id="group" name="group">
                        <option value="">all groups</option>
                        @foreach ($clientGroups as $group)
                            <option @selected($group === $rack->group)>{{ $group }}</option>
                        @endforeach
                    </select>
                @endif
            </form>
            @if ($rack->shelves === [])
                <p class="calm">{{ $sites === 0 ? 'No site yet. Each gets a jar here.' : 'No shelf fits.' }}</p>
            @endif
            @if ($as === 'table')
                <x-table caption="Sites">
                    <thead>
                        <tr>
                            <th scope="col">Site</th>
                            <th scope="col">Client</th>
                            <th scope="col">Used</th>
                            <th scope="col">Live page</th>
                            <th scope="col">Last backup</th>
                            <th scope="col">FTP users</th>
                        </tr>
                    </thead>
                    <tbody id="shelf-rows">@include('parts.shelf-rows')</tbody>
                </x-table>
            @else
                <ul class="rack" id="rack">@include('parts.shelves')</ul>
                <ul class="key" aria-label="What the jars mean">
                    <li>solid lid: live page proven</li>
                    <li>raised lid: an FTP user is open</li>
                    <li>hatching: backup overdue</li>
                    <li>dashed: nothing deployed</li>
                </ul>
            @endif
        </section>
    </div>
</x-page>
