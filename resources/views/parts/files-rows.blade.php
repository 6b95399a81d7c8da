@foreach ($table->rows as $entry)
    @php($row = $table->row($entry))
    <tr @class(['is-chosen' => ($chosen ?? null)?->row->entry->name === $entry->name])
        data-name="@exactly($entry->name)">
        <td class="tick"><input type="checkbox" name="names[]" value="@exactly($entry->seenWord())"
                aria-label="choose {{ $entry->name }}"></td>
        <td class="is-name"><a href="{{ $row->url() }}" data-open
                @if (! $entry->isDirectory()) hx-get="{{ $row->side() }}" hx-target="#chosen" hx-swap="outerHTML"
                    hx-push-url="{{ $row->url() }}" @endif><x-path
                    :path="$row->label()" /></a>
            @if ($entry->isDirectory())
                <a class="more" href="{{ $table->place->url(null, ['chosen' => $entry->name]) }}" data-side
                    hx-get="{{ $row->side() }}" hx-target="#chosen" hx-swap="outerHTML"
                    aria-label="facts of {{ $entry->name }}">facts</a>
            @endif
            @if ($entry->target !== null)
                <span class="soft">→ <x-path :path="$entry->target" /></span>
            @endif
        </td>
        <td class="is-size">{{ $row->size() }}</td>
        <td class="is-changed">{{ $row->changed() }}</td>
        <td class="is-rights">
            @if ($row->rights() !== null)
                <span class="nine" aria-hidden="true">
                    @foreach ($row->rights()->nine() as $has)
                        <i @class(['on' => $has])></i>
                    @endforeach
                </span>
                <code>{{ \Cellarium\Core\File\Rights::digits($entry->mode) }}</code>
            @endif
        </td>
        <td class="is-from"><x-tag :tone="$row->fromTag()">{{ $row->from() }}</x-tag></td>
        <td class="is-visitors {{ $row->visitors()?->tone() }}">{{ $row->visitors()?->words() }}</td>
    </tr>
@endforeach
@if ($table->next() !== null)
    <tr class="next" hx-get="{{ $table->next() }}" hx-trigger="revealed" hx-swap="outerHTML">
        <td colspan="7"><a href="{{ $table->next() }}">more of {{ number_format($table->count) }}</a></td>
    </tr>
@endif
