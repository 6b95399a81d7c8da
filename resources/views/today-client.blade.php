@use('Cellarium\Core\Words\Count')
@use('App\Models\ClientRequestKind')
@use('App\Text\Amount')
<x-page title="Today" place="Today">
    <x-slot:where>
        @if ($today->person->client !== null)
            <x-where :client="$today->person->client"><b>{{ $today->person->client->name }}</b>
                <x-slot:facts><span>{{ Count::words($today->sites->count(), 'site') }}</span></x-slot:facts></x-where>
        @endif
    </x-slot:where>
    <div class="stack">
        <section class="sheet" aria-labelledby="sites">
            <h1 id="sites">Your sites</h1>
            @if ($today->sites->isEmpty())
                <p class="calm">The agency looks after no site of yours here yet.</p>
            @else
                <x-table caption="Your sites" class="is-roomy">
                    <thead>
                        <tr>
                            <th scope="col">Site</th>
                            <th scope="col">What is live</th>
                            <th scope="col">Live pages</th>
                            <th scope="col">Last backup, read back</th>
                        </tr>
                    </thead>
                    <tbody>
                        @foreach ($today->sites as $site)
                            <tr>
                                <td><a class="strong" href="/sites/{{ $site->id }}"><x-domain
                                            :name="$site->domain" /></a></td>
                                <td data-label="live">{{ $today->live($site) }}</td>
                                <td data-label="live pages"><x-tag :tone="$today->proven($site)->tone">{{
                                    $today->proven($site)->words }}</x-tag></td>
                                <td data-label="last backup"><x-tag :tone="$today->backup($site)->tone">{{
                                    $today->backup($site)->words }}</x-tag>
                                    <span class="soft">{{ $site->backups_count }} kept</span></td>
                            </tr>
                        @endforeach
                    </tbody>
                </x-table>
            @endif
        </section>
        @if ($today->sheets->isNotEmpty())
            <section class="sheet" aria-labelledby="sheets">
                <h2 id="sheets">Sheets for you <small>what changed, what it rests on, who had access</small></h2>
                <ul class="users">
                    @foreach ($today->sheets as $sheet)
                        <li><a class="strong" href="/sheets/{{ $sheet->id }}/print">{{ $sheet->about() }}</a>
                            <p class="soft">made {{ $sheet->created_at->shown('j M Y') }}</p>
                        </li>
                    @endforeach
                </ul>
            </section>
        @endif
        <div class="two">
            <section class="sheet" aria-labelledby="asked">
                <h2 id="asked">What you asked
                    <small>{{ $today->waitingWords() }}</small>
                </h2>
                @foreach ($errors->all() as $message)
                    <p class="word is-trouble" role="alert">{{ $message }}</p>
                @endforeach
                <form method="post" action="/requests" class="pairs-form">
                    @csrf
                    <span class="name" id="kind">Ask for</span>
                    <div role="radiogroup" aria-labelledby="kind">
                        @foreach (ClientRequestKind::cases() as $kind)
                            <label class="check"><input type="radio" name="kind" value="{{ $kind->value }}" required
                                    @checked(old('kind', 'change') === $kind->value)> {{ $kind->label() }}</label>
                        @endforeach
                    </div>
                    <label for="site">Site</label>
                    <select class="entry" id="site" name="site">
                        @if ($today->sites->count() !== 1)
                            <option value="">none in particular</option>
                        @endif
                        @foreach ($today->sites as $site)
                            <option value="{{ $site->id }}" @selected(old('site') === (string) $site->id)>{{
                                $site->domain }}</option>
                        @endforeach
                    </select>
                    <label for="words">What it is about</label>
                    <textarea class="entry" id="words" name="words" rows="3" required maxlength="2000"
                        placeholder="What is to change, or who needs to put files where, and until when"
                    >@exactly(old('words'))</textarea>
                    <div class="row-acts"><button class="act is-main" data-once>Ask the agency</button></div>
                </form>
                @if ($today->requests->isNotEmpty())
                    <ul class="asked">
                        @foreach ($today->requests as $asked)
                            <li>
                                <p><b>{{ $asked->kind->label() }}</b>
                                    @if ($asked->site !== null)
                                        for <x-domain :name="$asked->site->domain" />
                                    @endif
                                    <x-tag :tone="$asked->answered_at === null ? 'soon' : 'proven'">{{
                                        $asked->answered_at === null ? 'waits' : 'answered' }}</x-tag>
                                    <span class="soft">{{ $asked->person->shortName() }},
                                        {{ Amount::ago($asked->created_at) }}</span></p>
                                <p class="notes">{{ $asked->words }}</p>
                                @if ($asked->answered_at !== null)
                                    <p class="notes reply">{{ $asked->answer }} <span
                                            class="soft">{{ $asked->answeredBy?->shortName() }},
                                            {{ Amount::ago($asked->answered_at) }}</span></p>
                                @endif
                            </li>
                        @endforeach
                    </ul>
                @endif
            </section>
            <section class="sheet" aria-labelledby="lately">
                <h2 id="lately">Done lately</h2>
                @if ($today->entries->isEmpty())
                    <p class="calm">Nothing yet.</p>
                @else
                    <ul class="lately">
                        @foreach ($today->entries as $entry)
                            <li><time>{{ $entry->at->shown('j M H:i') }}</time>
                                <bdi>@words($entry->sentence)</bdi>
                                <span class="soft">{{ $entry->person?->shortName() ?? 'Cellarium' }}</span></li>
                        @endforeach
                    </ul>
                    <p class="row-acts"><a href="/record">The whole record</a></p>
                @endif
            </section>
        </div>
    </div>
</x-page>
