@use('App\View\ReachMap')
@php
    $row = ReachMap::ROW; $lane = ReachMap::LANE; $top = 84; $names = 330;
    $width = max(800, $names + max(1, count($map->lanes)) * $lane + 50); $height = $top + count($map->rows) * $row + 30;
@endphp
<div class="reach" tabindex="0" role="group" aria-label="Reach map">
<svg width="{{ $width }}" height="{{ $height }}" viewBox="0 0 {{ $width }} {{ $height }}" role="img" aria-label="Directories of the account and what each login can touch; the same facts are in the table below">
    @foreach ($map->rows as $index => $place)
        @php($y = $top + $index * $row)
        @if ($index % 2 === 0)<rect class="stripe" x="0" y="{{ $y }}" width="{{ $width }}" height="{{ $row }}"/>@endif
        @php($x = 16 + $place['depth'] * 22)
        @if ($place['depth'] > 0)<path class="branch" d="M{{ $x - 14 }} {{ $y }}v{{ $row / 2 }}h9"/>@endif
        <text class="place" x="{{ $x }}" y="{{ $y + ($place['serves'] ? 16 : 24) }}">{{ \Illuminate\Support\Str::limit($place['name'], 34) }}</text>
        @if ($place['serves'])<text class="serves" x="{{ $x }}" y="{{ $y + 31 }}">⌂ serves {{ \Illuminate\Support\Str::limit($place['serves'], 38) }}</text>@elseif (! $place['looked'])<text class="unlooked" x="{{ $x }}" y="{{ $y + 35 }}">not looked into</text>@endif
    @endforeach
    @foreach ($map->lanes as $index => $login)
        @php($x = $names + $index * $lane + $lane / 2)
        <text class="login is-{{ $login['tone'] }}" transform="translate({{ $x - 6 }} {{ $top - 8 }}) rotate(-30)">{{ \Illuminate\Support\Str::limit($login['login'], 16) }}</text>
        <path class="rail" d="M{{ $x }} {{ $top }}V{{ $height - 30 }}"/>
        @if ($login['from'] >= 0)
            @php($from = $top + $login['from'] * $row + 6)
            @php($to = $top + ($login['to'] + 1) * $row - 6)
            <rect class="bar is-{{ $login['tone'] }}" x="{{ $x - 11 }}" y="{{ $from }}" width="22" height="{{ $to - $from }}" rx="4"/>
            @if ($login['warn'])<circle cx="{{ $x }}" cy="{{ $from + 14 }}" r="7.5" fill="#fffdf8"/><text class="bang" x="{{ $x }}" y="{{ $from + 18.5 }}" text-anchor="middle">!</text>@endif
            <text class="bar-note is-{{ $login['tone'] }}" x="{{ $x }}" y="{{ $to + 15 }}" text-anchor="middle">{{ $login['note'] }}</text>
        @else
            <text class="bar-note is-now" x="{{ $x }}" y="{{ $top + 20 }}" text-anchor="middle">elsewhere</text>
        @endif
    @endforeach
</svg>
</div>
@if ($map->more > 0)<p class="soft">{{ $map->more }} more closed {{ $map->more === 1 ? 'login is' : 'logins are' }} listed under FTP users.</p>@endif
<details><summary>The same as a table</summary>
    <table class="facts-table"><thead><tr><th>Login</th><th>Directory</th><th>Reach</th></tr></thead><tbody>
        @foreach ($map->lanes as $login)<tr><td><code>{{ $login['login'] }}</code></td><td><code>{{ $login['from'] >= 0 ? $map->rows[$login['from']]['path'] : 'not among these' }}</code></td><td>{{ $login['note'] }}</td></tr>@endforeach
    </tbody></table>
    <table class="facts-table"><thead><tr><th>Directory</th><th>Visitors see it at</th></tr></thead><tbody>
        @foreach ($map->rows as $place)@php($seen = $account->addressOf(\Cellarium\Core\Path\RemotePath::fromString($place['path'])))<tr><td><code>{{ $place['path'] }}</code>@if (! $place['looked']) <span class="soft">not looked into</span>@endif</td><td>@if ($seen === null)<span class="soft">not reachable</span>@else<x-address :address="$seen"/>@endif</td></tr>@endforeach
    </tbody></table>
</details>
