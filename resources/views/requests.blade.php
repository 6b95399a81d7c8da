@use('App\Text\Amount')
<x-page title="What clients ask" place="Today">
    <section class="sheet">
        <header class="head">
            <h1>What clients ask <small>what waits comes first</small></h1>
        </header>
        @if ($requests->isEmpty())
            <p class="calm">Nobody has asked for anything yet. A client’s person asks on their first page.</p>
        @else
            <x-table caption="Questions and answers" class="is-roomy">
                <thead>
                    <tr>
                        <th scope="col">Asked</th>
                        <th scope="col">Who</th>
                        <th scope="col">Site</th>
                        <th scope="col">What</th>
                        <th scope="col">Answer</th>
                    </tr>
                </thead>
                <tbody>
                    @foreach ($requests as $asked)
                        <tr>
                            <td class="when" data-label="asked">{{ Amount::ago($asked->created_at) }}</td>
                            <td data-label="who">{{ $asked->person->name }}<div class="soft">{{ $asked->client->name }}
                                </div>
                            </td>
                            <td data-label="site">
                                @if ($asked->site !== null)
                                    <x-domain :name="$asked->site->domain" />
                                @endif
                            </td>
                            <td data-label="what"><b>{{ $asked->kind->label() }}</b>:
                                {{ \Illuminate\Support\Str::limit($asked->words, 160) }}</td>
                            <td>
                                @if ($asked->answered_at === null)
                                    <x-action to="/requests/{{ $asked->id }}" method="GET"
                                        aria-label="Answer {{ $asked->person->name }}">Answer</x-action>
                                @else
                                    <a href="/requests/{{ $asked->id }}">{{ $asked->answeredBy?->shortName() }},
                                        {{ Amount::ago($asked->answered_at) }}</a>
                                @endif
                            </td>
                        </tr>
                    @endforeach
                </tbody>
            </x-table>
            <x-pages :of="$requests" what="requests" />
        @endif
    </section>
</x-page>
