@use('App\Text\Amount')
<x-page title="People" place="People">
    <section class="sheet">
        <header class="head">
            <h1>{{ $closed ? 'People who are closed' : 'People' }} <small>who may sign in, and as what</small></h1>
            <div class="row-acts">
                <form method="get" action="/people" class="inline">
                    @if ($closed)
                        <input type="hidden" name="closed" value="1">
                    @endif
                    <label class="is-sr-only" for="words">Name, address or client</label><input class="entry"
                        id="words" name="q" type="search" value="@exactly($words)"
                        placeholder="name, address, client"><button class="act">Find</button>
                </form>
                @if ($closed)
                    <x-action to="/people" method="GET">Those who may sign in</x-action>
                @else
                    @if ($others > 0)
                        <x-action to="/people?closed=1" method="GET">Closed: {{ $others }}</x-action>
                    @endif
                    <x-action to="/people/new" method="GET" main>Invite somebody</x-action>
                @endif
            </div>
        </header>
        @if ($people->isEmpty())
            <p class="calm">{{ $words === '' ? 'Nobody is closed.' : "Nobody here fits “{$words}”." }}</p>
        @else
            <x-table caption="People" class="is-roomy">
                <thead>
                    <tr>
                        <th scope="col">Name</th>
                        <th scope="col">Role</th>
                        <th scope="col">Signs in with</th>
                        <th scope="col">Since</th>
                        <th scope="col">Second factor</th>
                        <th scope="col">{{ $closed ? 'Closed' : 'Last seen' }}</th>
                    </tr>
                </thead>
                <tbody>
                    @foreach ($people as $person)
                        <tr>
                            <td><a class="strong" href="/people/{{ $person->id }}">{{ $person->name }}</a>
                                @if ($person->is(auth()->user()))
                                    <span class="soft">you</span>
                                @endif
                            </td>
                            <td data-label="role">{{ $person->role->label() }}
                                @if ($person->client !== null)
                                    <div class="soft">{{ $person->client->name }}{{ $person->may_fetch_backups
                                        ? ', may download backups' : '' }}</div>
                                @endif
                            </td>
                            <td data-label="signs in with"><x-domain :name="$person->email" /></td>
                            <td class="when" data-label="since">{{ $person->created_at?->shown('j M Y') }}</td>
                            <td data-label="second factor">
                                @if ($person->hasSecondFactor())
                                    <x-tag tone="proven">on</x-tag>
                                @elseif (\App\People\SecondFactor::isNeeded($person))
                                    <x-tag tone="soon">not set up yet</x-tag>
                                @else
                                    <span class="soft">none</span>
                                @endif
                            </td>
                            <td class="when" data-label="{{ $closed ? 'closed' : 'last seen' }}">
                                @if ($closed)
                                    {{ $person->closed_at?->shown('j M Y H:i') }}
                                @elseif ($person->isInvited())
                                    <x-tag :tone="$person->links->contains(fn ($link) => $link->waits()) ? 'kept'
                                        : 'soon'">{{ $person->links->contains(fn ($link) => $link->waits())
                                            ? 'invited, no password yet' : 'link ran out' }}</x-tag>
                                @else
                                    {{ $person->seen_at === null ? 'never' : Amount::ago($person->seen_at) }}
                                @endif
                            </td>
                        </tr>
                    @endforeach
                </tbody>
            </x-table>
            <x-pages :of="$people" what="people" />
        @endif
    </section>
</x-page>
