@use('Cellarium\Core\Words\Count')
@use('App\Sites\OverTime')
@php($address = "/sites/{$drawing->site->id}/over-time")
<section class="sheet over-time" id="over-time" aria-labelledby="over-time-title">
    <header class="head">
        <h2 id="over-time-title">Over time <small>{{ $drawing->until->subDays($drawing->days)->format('j M Y') }} to
            {{ $drawing->until->format('j M Y H:i') }}</small></h2>
        <nav class="row-acts" aria-label="How much of it" hx-target="#over-time" hx-swap="outerHTML">
            <a href="{{ $address }}?days={{ $drawing->days }}&until={{ $drawing->moved(-0.5) }}"
                hx-get="{{ $address }}?days={{ $drawing->days }}&until={{ $drawing->moved(-0.5) }}">earlier</a>
            @foreach (OverTime::SPANS as $days => $span)
                <a href="{{ $address }}?days={{ $days }}&until={{ $drawing->until->toIso8601ZuluString() }}"
                    hx-get="{{ $address }}?days={{ $days }}&until={{ $drawing->until->toIso8601ZuluString() }}"
                    @if ($drawing->days === $days) aria-current="true" @endif>{{ $span }}</a>
            @endforeach
            <a href="{{ $address }}?days={{ $drawing->days }}&until={{ $drawing->moved(0.5) }}"
                hx-get="{{ $address }}?days={{ $drawing->days }}&until={{ $drawing->moved(0.5) }}">later</a>
        </nav>
    </header>
    <div class="over-time-drawing">
        <svg width="{{ OverTime::LABELS }}" height="{{ $drawing->height }}">
            @foreach ($drawing->lanes as $lane)
                <text x="0" y="{{ $lane['y'] + 4 }}" class="lane">{{ $lane['label'] }}</text>
                <text x="0" y="{{ $lane['y'] + 20 }}" class="tick">{{ $lane['more'] }}</text>
            @endforeach
        </svg>
        <div class="over-time-scroll" tabindex="0" role="group" aria-label="The drawing">
        <svg viewBox="0 0 {{ OverTime::WIDTH }} {{ $drawing->height }}" width="{{ OverTime::WIDTH }}"
            height="{{ $drawing->height }}" data-from="{{ $drawing->line->from }}"
            data-until="{{ $drawing->line->until }}" data-left="{{ $drawing->leftEdge() }}"
            data-zone="{{ \App\Text\When::zone() }}">
            @foreach ($drawing->ticks as $tick)
                <line x1="{{ $tick['x'] }}" y1="10" x2="{{ $tick['x'] }}" y2="{{ $drawing->height - 46 }}"
                    class="axis" />
                <text x="{{ $tick['x'] }}" y="{{ $drawing->height - 8 }}" text-anchor="{{ $tick['anchor'] }}"
                    class="tick">{{ $tick['label'] }}</text>
            @endforeach
            @foreach ($drawing->bars as $bar)
                <a href="{{ $bar['page'] }}" aria-label="{{ $bar['words'] }}" class="is-{{ $bar['kind'] }}">
                    <title>{{ $bar['words'] }}</title>
                    <rect x="{{ $bar['x'] }}" y="{{ $bar['y'] }}" width="{{ $bar['width'] }}"
                        height="{{ $bar['height'] }}" rx="2" />
                    @if ($bar['notch'])
                        <path d="M{{ $bar['x'] }} {{ $bar['y'] }}l7 8l-7 8z" class="notch" />
                    @endif
                </a>
                <text x="{{ $bar['x'] + ($bar['notch'] ? 11 : 5) }}" y="{{ $bar['y'] + 12 }}" aria-hidden="true">{{
                    $bar['label'] }}</text>
            @endforeach
            @foreach ($drawing->marks as $mark)
                <a href="{{ $mark['page'] }}" aria-label="{{ $mark['words'] }}"
                    class="is-{{ $mark['kind'] }} of-{{ $mark['lane'] }}">
                    <title>{{ $mark['words'] }}</title>
                    <use href="#sign-{{ $mark['kind'] }}" x="{{ $mark['x'] }}" y="{{ $mark['y'] }}" />
                </a>
                @if ($mark['count'] > 1)
                    <text x="{{ $mark['count_x'] }}" y="{{ $mark['y'] - 5 }}" text-anchor="{{ $mark['anchor'] }}"
                        class="count" aria-hidden="true">{{ $mark['count'] }}</text>
                @endif
            @endforeach
            @leads("/sites/{$drawing->site->id}/moments")
                @foreach ($drawing->moments() as $name => $moment)
                    <g class="moment" data-moment="{{ $name }}" tabindex="0" role="slider"
                        aria-label="Moment {{ strtoupper($name) }}" aria-valuemin="{{ $drawing->line->from }}"
                        aria-valuemax="{{ $drawing->line->until }}" aria-valuenow="{{ $moment['at'] }}"
                        aria-valuetext="{{ $moment['words'] }}" transform="translate({{ $moment['x'] }} 0)">
                        <line y1="12" y2="{{ $drawing->height - 44 }}" />
                        <circle cy="{{ $drawing->height - 34 }}" r="11" />
                        <text y="{{ $drawing->height - 30 }}" text-anchor="middle">{{ strtoupper($name) }}</text>
                    </g>
                @endforeach
            @endleads
            <defs>
                <circle id="sign-taken" r="6" />
                <g id="sign-rehearsed"><circle r="6" /><circle r="9" fill="none" stroke-width="2" /></g>
                <g id="sign-pinned"><circle r="6" /><path d="M-9 -9h18v18h-18z" fill="none" stroke-width="2" /></g>
                <circle id="sign-gone" r="5" fill="none" stroke-width="2" />
                <path id="sign-failed" d="M-6 -6l12 12m0 -12l-12 12" fill="none" stroke-width="2.5" />
                <path id="sign-by_hand" d="M0 -7l7 13h-14z" />
                <path id="sign-drift" d="M0 -8l8 8l-8 8l-8 -8z" />
            </defs>
        </svg>
        </div>
    </div>
    @leads("/sites/{$drawing->site->id}/moments")
        <form method="get" action="/sites/{{ $drawing->site->id }}/moments" class="row-acts moments-form">
            @foreach ($drawing->moments() as $name => $moment)
                <input type="hidden" name="{{ $name }}_at" value="{{ $moment['at'] }}">
                <span><b>{{ strtoupper($name) }}</b> <output data-moment-words="{{ $name }}">{{ $moment['words']
                    }}</output></span>
            @endforeach
            <button class="act">Compare A and B</button>
            <span class="soft">Drag A and B in the drawing, or move them with the arrow keys.</span>
        </form>
    @endleads
    <details>
        <summary>As a table, {{ Count::words(count($drawing->line->events), 'event') }}</summary>
        <p><a href="{{ $address }}.csv?days={{ $drawing->days }}&until={{ $drawing->until->toIso8601ZuluString()
            }}">Download as CSV</a></p>
        <x-table caption="Events">
            <thead>
                <tr>
                    <th scope="col">When</th>
                    <th scope="col">Until</th>
                    <th scope="col">Lane</th>
                    <th scope="col">What</th>
                </tr>
            </thead>
            <tbody>
                @foreach ($drawing->rows() as $row)
                    <tr>
                        <td class="when">{{ $row['at'] }}</td>
                        <td class="when">{{ $row['until'] }}</td>
                        <td>{{ $row['lane'] }}</td>
                        <td><a href="{{ $row['page'] }}">@words($row['words'])</a></td>
                    </tr>
                @endforeach
            </tbody>
        </x-table>
    </details>
</section>
