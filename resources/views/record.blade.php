@use('App\Models\RecordGroup')
<x-page title="Record" place="Record">
    <section class="sheet">
        <header class="head">
            <h1>Record <small>who did what, when; it only grows</small></h1>
        </header>
        <form class="sieve" method="get" action="/record"><label class="is-sr-only" for="words">Words in the
                record</label><input class="entry" id="words" name="q" type="search" value="@exactly($words)"
                placeholder="{{ $ofOneClient ? '' : 'client, ' }}site, login, words" autocomplete="off"><label
                class="is-sr-only" for="about">About</label><select class="entry" id="about" name="about">
                <option value="">about everything</option>
                @foreach (RecordGroup::cases() as $group)
                    <option value="{{ $group->value }}" @selected($group === $about)>{{ $group->label() }}</option>
                @endforeach
            </select>
            @if ($people->isNotEmpty())
                <label class="is-sr-only" for="who">By</label><select class="entry" id="who" name="who">
                    <option value="">by whoever it was</option>
                    @foreach ($people as $person)
                        <option value="{{ $person->id }}" @selected($person->id === $who)>{{ $person->name }}</option>
                    @endforeach
                </select>
            @endif
            <button class="act">Show</button>
            @if ($isFiltered)
                <a href="/record">Show all</a>
            @else
                <span class="soft">Connections that hold are left out.</span>
            @endif
        </form>
        @if ($entries->isEmpty())
            <p class="calm">{{ $isFiltered ? 'Nothing in the record fits.' : 'Nothing happened yet.' }}
            </p>
        @else
            <x-table caption="Record">
                <thead>
                    <tr>
                        <th scope="col">When</th>
                        <th scope="col">Who</th>
                        @unless ($ofOneClient)
                            <th scope="col">Client</th>
                        @endunless
                        <th scope="col">What</th>
                    </tr>
                </thead>
                <tbody>
                    @foreach ($entries as $entry)
                        <tr>
                            <td class="when">{{ $entry->at->shown('j M Y H:i:s') }}</td>
                            <td class="when" data-label="who">{{ $entry->person?->shortName() ?? 'Cellarium' }}
                                @if ($entry->role !== null)
                                    <div class="soft">{{ $entry->role->label() }}{{ $entry->address === null
                                        || $ofOneClient ? '' : ", $entry->address" }}</div>
                                @elseif ($entry->address !== null && ! $ofOneClient)
                                    <div class="soft">{{ $entry->address }}</div>
                                @endif
                            </td>
                            @unless ($ofOneClient)
                            <td>
                                @if ($entry->account_id)
                                    <a href="/accounts/{{ $entry->account_id }}">{{ $entry->client?->name }}</a>
                                @else
                                    {{ $entry->client?->name }}
                                @endif
                            </td>
                            @endunless
                            <td>
                                @if (isset($entry->facts['deployment']) && ! $ofOneClient)
                                    <a href="/deployments/{{ $entry->facts['deployment'] }}">
                                        <bdi>@words($entry->sentence)</bdi></a>
                                @else
                                    <bdi>@words($entry->sentence)</bdi>
                                @endif
                            </td>
                        </tr>
                    @endforeach
                </tbody>
            </x-table>
            @if ($more)
                <p><a href="{{ request()->fullUrlWithQuery(['before' => $entries->last()->id]) }}">Older</a></p>
            @endif
        @endif
    </section>
</x-page>
