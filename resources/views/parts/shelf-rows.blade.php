@use('App\Text\Amount')
@foreach ($rack->shelves as $shelf)
    @foreach ($shelf->jars as $jar)
        <tr>
            <td><a href="/sites/{{ $jar->site->id }}"><x-domain :name="$jar->site->domain" /></a></td>
            <td>{{ $shelf->client->name }}</td>
            <td class="when" data-label="used">{{ Amount::bytes($jar->site->bytes) }}</td>
            <td class="when" data-label="live page">{{ $jar->live() }}</td>
            <td class="when" data-label="last backup">{{ $jar->site->last_backup_at?->shown('j M Y') ?? 'none' }}</td>
            <td class="when" data-label="FTP users">{{ $jar->open ? 'open' : 'none' }}</td>
        </tr>
    @endforeach
@endforeach
@if ($rack->next !== null)
    <tr class="more" hx-get="{{ $rack->nextUrl('table') }}" hx-trigger="revealed" hx-swap="outerHTML">
        <td colspan="6">More …</td>
    </tr>
@endif
