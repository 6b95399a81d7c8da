@use('App\Backups\RetentionDrawing')
<figure class="retention" id="retention">
    <div class="retention-scroll" tabindex="0" role="group" aria-label="Which backups stay">
    <svg viewBox="0 0 {{ RetentionDrawing::WIDTH }} 64" role="img"
        aria-label="{{ $drawing->stay }} backups stay, {{ $drawing->go }} go">
        <line x1="10" y1="22" x2="990" y2="22" class="axis" />
        @foreach ($drawing->marks as $mark)
            <line x1="{{ $mark['x'] }}" y1="16" x2="{{ $mark['x'] }}" y2="34" class="axis" />
            <text x="{{ $mark['x'] }}" y="52" text-anchor="middle">{{ $mark['words'] }}</text>
        @endforeach
        @foreach ($drawing->dots as $dot)
            @if ($dot['isKept'])
                <circle cx="{{ $dot['x'] }}" cy="22" r="6" class="stays"><title>{{ $dot['words'] }}</title></circle>
                @if ($dot['isHeld'])
                    <circle cx="{{ $dot['x'] }}" cy="22" r="9" class="held" />
                @endif
            @else
                <path d="M{{ $dot['x'] - 5 }} 17l10 10m0 -10l-10 10" class="goes">
                    <title>{{ $dot['words'] }}</title>
                </path>
            @endif
        @endforeach
    </svg>
    </div>
    <figcaption><span class="stays">●</span> {{ $drawing->stays() }}, ringed: pinned, a way back or the only one
        <span class="goes">✕</span> {{ $drawing->goes() }}
    </figcaption>
</figure>
