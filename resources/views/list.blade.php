@use('Cellarium\Core\Intake\Column')
@use('Cellarium\Core\Intake\Verdict')
<x-page title="Import a list" place="Accounts">
    @if ($list === null)
        <section class="sheet is-narrow">
            <h1>Import a list <small>comma-separated values, the first line its headings</small></h1>
            @foreach ($errors->all() as $message)
                <p class="word is-trouble" role="alert">{{ $message }}</p>
            @endforeach
            <form method="post" action="/accounts/import" enctype="multipart/form-data" class="stack-form"
                autocomplete="off">
                @csrf
                <label for="list">File</label><input class="entry" id="list" name="list" type="file"
                    accept=".csv,.tsv,.txt,text/csv">
                <label for="text">or the list itself</label>
                <textarea class="entry is-mono is-lines" id="text" name="text" rows="8" spellcheck="false"
                    placeholder="client,host,login,password,domain,document root"></textarea>
                <p class="soft">The next step only looks: it says for each row what would be done. Until then the list
                    is kept encrypted, for an hour at the most. Columns it can have:
                    {{ collect(Column::cases())->map->label()->join(', ') }}.</p>
                <div class="row-acts"><button class="act is-main" data-once>Preview the list</button> <a class="act"
                        href="/accounts/new">One account by hand</a></div>
            </form>
        </section>
    @else
        @php($counts = $rehearsal->counts())
        <section class="sheet">
            <h1>What would be done <small>{{ count($rehearsal->rows) }} rows</small>
                <x-tag tone="proven">{{ $counts['new'] }} new</x-tag> <x-tag tone="soon">{{ $counts['changed'] }}
                    changed</x-tag> <x-tag>{{ $counts['same'] }} the same</x-tag> <x-tag
                    tone="now">{{ $counts['refused'] }} refused</x-tag>
            </h1>
            <form method="get" action="/accounts/import/{{ $name }}" class="mapping">
                @foreach ($list->headings as $number => $heading)
                    <div><label
                            for="column-{{ $number }}">{{ $heading === '' ? 'column '.($number + 1)
                                : $heading }}</label>
                        <select class="entry" id="column-{{ $number }}" name="columns[{{ $number }}]">
                            <option value="">left out</option>
                            @foreach (Column::cases() as $column)
                                <option value="@exactly($column->value)"
                                    @selected(($columns[$number] ?? null) === $column)>{{ $column->label() }}
                                </option>
                            @endforeach
                        </select>
                    </div>
                @endforeach
                <div><button class="act">Look again with these</button></div>
            </form>
            <form method="post" action="/accounts/import/{{ $name }}" class="row-acts">
                @csrf
                @foreach ($columns as $number => $column)
                    <input type="hidden" name="columns[{{ $number }}]" value="@exactly($column->value)">
                @endforeach
                @if ($counts['refused'] > 0)
                    <p class="word is-trouble" role="status">All or nothing: mend the refused rows in the list and
                        import it again.</p>
                @elseif ($counts['new'] + $counts['changed'] === 0)
                    <p class="word" role="status">There is nothing to import.</p>
                @else
                    <button class="act is-main" data-once>Import {{ $counts['new'] + $counts['changed'] }}
                        rows</button>
                @endif
                <a class="act" href="/accounts/import">Another list</a>
            </form>
            <x-table caption="Lines of the list">
                <thead>
                    <tr>
                        <th scope="col">Line</th>
                        <th scope="col">Would be</th>
                        <th scope="col">Client</th>
                        <th scope="col">Host and login</th>
                        <th scope="col">Site</th>
                        <th scope="col">Why</th>
                    </tr>
                </thead>
                <tbody>
                    @foreach (collect($rehearsal->rows)->sortBy(fn($row) => array_search($row['verdict'],
                        [Verdict::Refused, Verdict::Changed, Verdict::Fresh, Verdict::Same], true))->take(500) as $row)
                        <tr>
                            <td>{{ $row['row']->line }}</td>
                            <td><x-tag
                                    :tone="match ($row['verdict']) {
                                        Verdict::Fresh => 'proven',
                                        Verdict::Changed => 'soon',
                                        Verdict::Same => 'plain',
                                        Verdict::Refused => 'now',
                                    }">{{ $row['verdict']->value }}</x-tag></td>
                            <td>{{ $row['row']->text('client') }}</td>
                            <td><x-path :path="$row['row']->text('host')" /> <code
                                    class="soft">{{ $row['row']->text('login') }}</code></td>
                            <td>{{ $row['row']->text('domain') }} <code
                                    class="soft">{{ $row['row']->text('document_root') }}</code></td>
                            <td>{{ $row['words'] }}</td>
                        </tr>
                    @endforeach
                </tbody>
            </x-table>
            @if (count($rehearsal->rows) > 500)
                <p class="soft">The refused and changed rows come first; {{ count($rehearsal->rows) - 500 }} more are
                    not shown.</p>
            @endif
        </section>
    @endif
</x-page>
