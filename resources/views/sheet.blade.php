@use('Cellarium\Core\Words\Count')
@use('App\Sheets\Sheets')
<x-page :title="'Sheet for '.$sheet->client->name" place="Accounts">
    <x-slot:where><x-where :client="$sheet->client"><a
                href="/sheets?client={{ $sheet->client_id }}"><b>{{ $sheet->client->name }}</b></a><i>›</i>sheet
            <x-slot:facts><span>{{ $sheet->about() }}</span><span>made
                    {{ $sheet->created_at->shown('j M Y H:i') }} by
                    {{ $sheet->person?->shortName() ?? 'Cellarium' }}</span></x-slot:facts></x-where></x-slot:where>
    <link rel="stylesheet" href="/css/client-sheet.css?v={{ filemtime(public_path('css/client-sheet.css')) }}">
    <div class="two">
        <div class="paper">@include('parts.client-sheet')</div>
        <div class="stack">
            <section class="sheet" aria-labelledby="give">
                <h2 id="give">Give it to {{ $sheet->client->name }}</h2>
                <div class="row-acts">
                    <a class="act is-main" href="/sheets/{{ $sheet->id }}/print" target="_blank">Print it</a>
                    <a class="act" href="/sheets/{{ $sheet->id }}.json">Its file, signed</a>
                </div>
                @leads("/sheets/$sheet->id/links", 'POST')
                    <form method="post" action="/sheets/{{ $sheet->id }}/links" class="row-acts apart">
                        @csrf
                        <label for="days">A link that opens it without signing in, for</label>
                        <select class="entry is-choice" id="days" name="days">
                            @foreach (Sheets::DAYS as $days)
                                <option value="{{ $days }}" @selected($days === 30)>
                                    {{ Count::words($days, 'day') }}</option>
                            @endforeach
                        </select>
                        <button class="act" data-once>Make a link</button>
                    </form>
                @endleads
            </section>
            <section class="sheet" aria-labelledby="links">
                <h2 id="links">Links <small>{{ $sheet->links->count() }}</small></h2>
                @if ($sheet->links->isEmpty())
                    <p class="calm">Nobody was given one yet.</p>
                @else
                    <ul class="users">
                        @foreach ($sheet->links as $link)
                            <li><b>{{ $link->words() }}</b>
                                <p class="soft">made {{ $link->created_at->shown('j M H:i') }} ·
                                    {{ $link->use() }}</p>
                                @if ($link->works())
                                    <x-action to="/sheet-links/{{ $link->id }}/withdraw">Withdraw</x-action>
                                @endif
                            </li>
                        @endforeach
                    </ul>
                @endif
            </section>
        </div>
    </div>
</x-page>
