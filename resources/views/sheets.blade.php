<x-page title="Sheets for clients" place="Accounts">
    @if ($client !== null)
        <x-slot:where><x-where :client="$client"><x-link
                    to="/clients/{{ $client->id }}"><b>{{ $client->name }}</b></x-link><i>›</i>sheets</x-where>
        </x-slot:where>
    @endif
    <div class="two">
        <section class="sheet" aria-labelledby="made">
            <h1 id="made">Sheets {{ $client === null ? 'for clients' : "for $client->name" }}
                <small>{{ $sheets->total() }}</small></h1>
            @if ($sheets->isEmpty())
                <p class="calm">None was made yet. A sheet tells a client what changed, what it rests on, who had access
                    and for how many seconds visitors found no site.</p>
            @else
                <x-table caption="Sheets" class="is-roomy">
                    <thead>
                        <tr>
                            <th scope="col">Made</th>
                            @if ($client === null)
                                <th scope="col">Client</th>
                            @endif
                            <th scope="col">About</th>
                            <th scope="col">Links</th>
                        </tr>
                    </thead>
                    <tbody>
                        @foreach ($sheets as $sheet)
                            <tr>
                                <td class="when" data-label="made"><a class="strong"
                                        href="/sheets/{{ $sheet->id }}">{{ $sheet->created_at->shown('j M Y H:i') }}</a>
                                    <div class="soft">{{ $sheet->person?->shortName() ?? 'Cellarium' }}</div>
                                </td>
                                @if ($client === null)
                                    <td data-label="client">{{ $sheet->client->name }}</td>
                                @endif
                                <td data-label="about">{{ $sheet->about() }}</td>
                                <td data-label="links">
                                    @if ($sheet->links->isEmpty())
                                        <span class="soft">none</span>
                                    @else
                                        {{ $sheet->links[0]->words() }}
                                        <div class="soft">{{ $sheet->links[0]->use() }}</div>
                                    @endif
                                </td>
                            </tr>
                        @endforeach
                    </tbody>
                </x-table>
                <x-pages :of="$sheets" what="sheets" />
            @endif
        </section>
        @leads('/sheets', 'POST')
            <section class="sheet" aria-labelledby="new">
                <h2 id="new">Make a sheet</h2>
                @foreach ($errors->all() as $message)
                    <p class="word is-trouble" role="alert">{{ $message }}</p>
                @endforeach
                @if ($client === null)
                    <form method="get" action="/sheets" class="pairs-form">
                        <label for="client">Client</label>
                        <select class="entry is-choice" id="client" name="client" required>
                            <option value="">choose</option>
                            @foreach ($clients as $one)
                                <option value="{{ $one->id }}">{{ $one->name }}</option>
                            @endforeach
                        </select>
                        <div class="row-acts"><button class="act is-main">Go on</button></div>
                    </form>
                @else
                    <form method="post" action="/sheets" class="pairs-form">
                        @csrf
                        <input type="hidden" name="client" value="{{ $client->id }}">
                        <label for="site">Sites</label>
                        <select class="entry is-choice" id="site" name="site">
                            <option value="">all {{ $sites->count() }}</option>
                            @foreach ($sites as $one)
                                <option value="{{ $one->id }}" @selected((int) old('site', $site?->id) === $one->id)>{{
                                    $one->domain }}</option>
                            @endforeach
                        </select>
                        <label for="from">First day</label>
                        <input class="entry is-time" type="date" id="from" name="from" required
                            value="@exactly(old('from', $from->format('Y-m-d')))">
                        <label for="until">Last day</label>
                        <input class="entry is-time" type="date" id="until" name="until" required
                            value="@exactly(old('until', $until->format('Y-m-d')))">
                        <div class="row-acts"><button class="act is-main" data-once>Make the sheet</button></div>
                    </form>
                    <p class="soft apart">A sheet of one deployment is made on its own page, once it has ended.</p>
                @endif
            </section>
        @endleads
    </div>
</x-page>
