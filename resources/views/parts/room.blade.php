@use('App\Plans\RoomDrawing')
<section class="sheet" aria-labelledby="room">
    <h2 id="room">Room at every step</h2>
    <svg class="room" viewBox="0 0 {{ RoomDrawing::WIDTH }} {{ RoomDrawing::HEIGHT }}" aria-hidden="true">
        @foreach ($room->bars as $bar)
            <rect class="is-{{ $bar['tone'] }}" x="{{ $bar['x'] }}" y="{{ $bar['y'] }}" width="44"
                height="{{ $bar['height'] }}" rx="2" />
            <text x="{{ $bar['x'] + 22 }}" y="{{ $bar['y'] - 5 }}">{{ $bar['words'] }}</text>
            <text class="name" x="{{ $bar['x'] + 22 }}" y="120">{{ $bar['name'] }}</text>
        @endforeach
        @if ($room->limit() !== null)
            <line x1="0" x2="{{ RoomDrawing::WIDTH }}" y1="{{ $room->limitAt }}" y2="{{ $room->limitAt }}" />
        @endif
    </svg>
    <dl class="is-sr-only">
        @foreach ($room->asText() as $step => $words)
            <dt>{{ $step }}</dt>
            <dd>{{ $words }}</dd>
        @endforeach
    </dl>
    @if ($room->limit() !== null)
        <p class="limit">{{ $room->limit() }}</p>
    @endif
    @if ($room->sentence() !== '')
        <p @class(['is-now-text' => $room->limit() !== null, 'soft' => $room->limit() === null])>{{ $room->sentence()
            }}</p>
    @endif
</section>
