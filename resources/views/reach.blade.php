@use('App\Reach\ReachMatrix')
@use('Cellarium\Core\Reach\Flag')
@use('App\Reach\MatrixRow')
@php($rows = $matrix->rows())
<x-page title="Who reaches what" place="Accounts">
    <section class="sheet">
        <header class="head">
            <h1>Who reaches what
                <small>{{ $matrix->summary() }}, closed ones left out, those that stand out first</small></h1>
            <div class="row-acts"><x-action to="/ftp-users" method="GET">As a list to act on</x-action> <a
                    class="act is-quiet" href="{{ $matrix->url($matrix->only, 1, '/reach.csv') }}">As CSV</a></div>
        </header>
        <form class="sieve" method="get" action="/reach"><label class="is-sr-only" for="q">Client, domain,
                login or directory</label><input class="entry is-wide" id="q" name="q" type="search"
                value="@exactly($matrix->words)" placeholder="Client, domain, login, directory"
                autocomplete="off"><input
                type="hidden" name="only" value="@exactly($matrix->only)"><span class="inline"><label for="idle">idle
                    from</label> <input class="entry is-few" id="idle" name="idle" inputmode="numeric"
                    value="@exactly($matrix->idleAfter)"> days</span> <button class="act">Show</button></form>
        <div class="chips" role="group" aria-label="Only">
            <a class="chip" href="{{ $matrix->url(null) }}"
                @if ($matrix->only === '') aria-current="true" @endif>all <b>{{ $matrix->all }}</b></a>
            @foreach (ReachMatrix::filters() as $only => $label)
                <a class="chip{{ $matrix->counts[$only] > 0 ? ' is-some' : '' }}" href="{{ $matrix->url($only) }}"
                    @if ($matrix->only === $only) aria-current="true" @endif>{{ $label }}
                    <b>{{ $matrix->counts[$only] }}</b></a>
            @endforeach
        </div>
        @if ($rows === [])
            <p class="calm">{{ $matrix->all === 0 ? 'No FTP user is open in any account.' : 'No FTP user fits.' }}</p>
        @else
            <div class="matrix-frame" tabindex="0" role="region"
                aria-label="Matrix of FTP users and what they reach">
                <x-table caption="FTP users and what they reach" kind="matrix">
                    <thead>
                        <tr>
                            <th scope="col" class="who">FTP user</th>
                            @foreach (ReachMatrix::EXTENTS as $label)
                                <th scope="col" class="turn"><span>{{ $label }}</span></th>
                            @endforeach
                            <th scope="col" class="gap" aria-hidden="true"></th>
                            @foreach (ReachMatrix::OTHERS as $flag)
                                <th scope="col" class="turn"><span>{{ $flag->label() }}</span></th>
                            @endforeach
                        </tr>
                    </thead>
                    <tbody>
                        @foreach ($rows as $row)
                            <tr>
                                <th scope="row" class="who">
                                    <x-band :client="$row->user->account->client" :height="22" />
                                    <a class="strong" href="/ftp-users/{{ $row->user->id }}"><x-path
                                            :path="$row->user->login" /></a>
                                    <div class="soft">{{ $row->user->account->client->name }} ·
                                        <x-path :path="$row->user->directory" /> ·
                                        @words($row->scope->reach->sentence())</div>
                                    <div class="when-narrow">
                                        @foreach ($row->marks() as $mark)
                                            <x-tag :tone="$mark['tone']">{{ $mark['words'] }}</x-tag>
                                        @endforeach
                                    </div>
                                </th>
                                @foreach (array_keys(ReachMatrix::EXTENTS) as $column)
                                    <td class="{{ $row->extentTone($column) }}">
                                        @if ($column === $row->extent)
                                            @include('parts.extent-sign')
                                            <span class="is-sr-only">yes</span>
                                        @endif
                                    </td>
                                @endforeach
                                <td class="gap"></td>
                                @foreach (ReachMatrix::OTHERS as $flag)
                                    <td class="{{ $row->has($flag) ? 'is-'.MatrixRow::tone($flag) : '' }}">
                                        @if ($row->has($flag) && $flag === Flag::Idle)
                                            <b title="{{ $flag->sentence() }}">{{ $row->scope->idleDays }} d</b>
                                        @elseif ($row->has($flag))
                                            <svg width="18" height="18" viewBox="0 0 18 18" aria-hidden="true">
                                                <path class="on" d="M9 1l8 8-8 8-8-8z" />
                                            </svg>
                                            <span class="is-sr-only">yes</span>
                                        @endif
                                    </td>
                                @endforeach
                            </tr>
                        @endforeach
                    </tbody>
                </x-table>
            </div>
            @if ($matrix->pages() > 1)
                <nav class="pages" aria-label="Pages">
                    @if ($matrix->page > 1)
                        <a class="act" href="{{ $matrix->url($matrix->only, $matrix->page - 1) }}"
                            rel="prev">Previous</a>
                    @endif
                    <span>{{ $matrix->page }} of {{ $matrix->pages() }}</span>
                    @if ($matrix->page < $matrix->pages())
                        <a class="act" href="{{ $matrix->url($matrix->only, $matrix->page + 1) }}"
                            rel="next">Next</a>
                    @endif
                </nav>
            @endif
        @endif
    </section>
</x-page>
