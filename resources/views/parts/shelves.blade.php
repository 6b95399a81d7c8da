@use('Cellarium\Core\Words\Count')
@foreach ($rack->shelves as $index => $shelf)
    @if (
        $shelf->client->group !== '' &&
            $rack->group === '' &&
            ($index === 0 || $rack->shelves[$index - 1]->client->group !== $shelf->client->group))
        <li class="group">
            {{ $shelf->client->group }}</li>
    @endif
    <li>
        <x-band :client="$shelf->client" :height="44" />
        <div class="whose">
            <b>{{ $shelf->client->name }}</b><small>{{ Count::words(count($shelf->jars), 'site') }}</small>
        </div>
        @php($labels = $shelf->labels())
        <div class="jars">
            @foreach ($shelf->jars as $number => $jar)
                <x-jar :jar="$jar" :label="$labels[$number]" />
            @endforeach
        </div>
    </li>
@endforeach
@if ($rack->next !== null)
    <li class="more" hx-get="{{ $rack->nextUrl('drawing') }}" hx-trigger="revealed" hx-swap="outerHTML"><a
            href="{{ $rack->nextUrl('drawing') }}">More shelves …</a></li>
@endif
