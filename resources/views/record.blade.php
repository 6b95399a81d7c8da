<x-page title="Record" place="Record">
    <section class="sheet">
        <header class="head">
            <h1>Record <small>who did what, when; it only grows</small></h1>
            <form method="get" action="/record" class="inline"><label class="is-sr-only" for="words">Words in the
                    record</label><input class="entry" id="words" name="q" value="@exactly($words)"
                    placeholder="{{ $ofOneClient ? '' : 'client, ' }}site, login, words"><button
                    class="act">Find</button></form>
        </header>
        @if ($entries->isEmpty())
            <p class="calm">{{ $words === '' ? 'Nothing happened yet.' : "Nothing in the record says “{$words}”." }}
            </p>
        @else
            <table class="facts-table">
                <thead>
                    <tr>
                        <th>When</th>
                        <th>Who</th>
                        @unless ($ofOneClient)
                            <th>Client</th>
                        @endunless
                        <th>What</th>
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
            </table>
            @if ($more)
                <p><a href="/record?q={{ urlencode($words) }}&amp;before={{ $entries->last()->id }}">Older</a></p>
            @endif
        @endif
    </section>
</x-page>
