@use('App\Reach\ReachMap')
@use('Illuminate\Support\Str')
@php
    $row = ReachMap::ROW;
    $lane = $map->laneWidth();
    $narrow = $map->isNarrow();
    $top = $narrow ? 124 : 84;
    $names = 340;
    $deepest = collect($map->rows)->max('depth');
    $width = max(800, $names + count($map->lanes) * $lane + ($narrow ? 70 : 50));
    $height = $top + count($map->rows) * $row + 26;
    $y = fn(int $number): int => $top + $number * $row;
@endphp
<div id="reach-map">
    <div class="reach" tabindex="0" role="group" aria-label="Reach map, lights up where it is pointed at">
        <svg width="{{ $width }}" height="{{ $height }}" viewBox="0 0 {{ $width }} {{ $height }}"
            role="group"
            aria-label="Directories of the account and what each login can touch; the same facts are in the table below">
            @foreach ($map->rows as $number => $place)
                @php($x = 16 + $place['depth'] * 20)
                <g class="row" data-row="{{ $number }}">
                    <rect class="stripe{{ $number % 2 === 0 ? ' is-dark' : '' }}" x="0" y="{{ $y($number) }}"
                        width="{{ $width }}" height="{{ $row }}" />
                    @if ($place['depth'] > 0)
                        <path class="branch" d="M{{ $x - 13 }} {{ $y($number) }}v{{ $row / 2 }}h8" />
                    @endif
                    @if ($place['kind'] === 'fold')
                        <a class="fold" href="{{ $map->url($place['path']) }}"
                            aria-label="Show {{ $place['name'] }} in {{ $place['path'] }}"><text class="unlooked"
                                x="{{ $x }}" y="{{ $y($number) + 23 }}">+ {{ $place['name'] }}</text></a>
                    @elseif ($place['kind'] === 'link')
                        <text class="place is-link" x="{{ $x }}"
                            y="{{ $y($number) + 23 }}">{{ Str::limit($place['name'], 18) }} →
                            {{ $place['target'] === '' ? 'somewhere' : Str::limit($place['target'], 24) }}</text>
                    @else
                        @php($two = $place['serves'] !== [] || ! $place['looked'] || $place['gone'])
                        <text class="place" x="{{ $x }}"
                            y="{{ $y($number) + ($two ? 16 : 24) }}">{{ Str::limit($place['name'], max(8, 34 -
                                $place['depth'] * 2)) }}
                            @if ($place['secrets'] > 0)
                                <tspan class="secret" dx="8">
                                    {{ $place['secrets'] === 1 ? 'a secret file' : "{$place['secrets']} secret files" }}
                                </tspan>
                                @endif @if ($place['scripts'])
                                    <tspan class="secret" dx="8">scripts in uploads</tspan>
                                @endif
                        </text>
                        @if ($place['serves'] !== [])
                            <text class="serves" x="{{ $x }}" y="{{ $y($number) + 31 }}">⌂ serves
                                {{ Str::limit(implode(', ', $place['serves']), 38) }}</text>
                        @elseif ($place['gone'])
                            <text class="unlooked is-now" x="{{ $x }}" y="{{ $y($number) + 31 }}">not
                                there</text>
                        @elseif (! $place['looked'])
                            <text class="unlooked" x="{{ $x }}" y="{{ $y($number) + 31 }}">not looked
                                into</text>
                        @endif
                    @endif
                </g>
            @endforeach
            @foreach ($map->rows as $number => $place)
                @if ($place['leads'] !== null)
                    @php($from = $y($number) + $row / 2)
                    @php($to = $y($place['leads']) + $row / 2)
                    <path class="leads"
                        d="M{{ $names - 34 }} {{ $from }}C{{ $names - 4 }} {{ $from }} {{ $names - 4 }} {{ $to }} {{
                            $names - 34 }} {{ $to }}m5 -4l-5 4l5 4" />
                @endif
            @endforeach
            @foreach ($map->lanes as $index => $login)
                @php($x = $names + $index * $lane + $lane / 2)
                @php($from = $y($login['from']) + 6)
                @php($to = $y($login['to'] + 1) - 6)
                @php($half = $narrow ? 7 : 11)
                @php($shown = Str::limit($login['login'], $narrow ? 14 : 16))
                <a class="lane is-{{ $login['tone'] }}" href="{{ $login['url'] }}" data-from="{{ $login['from'] }}"
                    data-to="{{ $login['to'] }}" data-words="@exactly($login['words'])"
                    aria-label="{{ $shown }}{{ $narrow ? '' : " {$login['note']}" }}: {{ $login['words'] }}">
                    <rect class="touch" x="{{ $x - $lane / 2 }}" y="{{ $top }}" width="{{ $lane }}"
                        height="{{ $height - $top }}" />
                    <text class="login is-{{ $login['tone'] }}"
                        transform="translate({{ $x - ($narrow ? 2 : 6) }} {{ $top - 8 }}) rotate({{ $narrow ? -58
                            : -30 }})">{{ $shown }}</text>
                    <path class="rail" d="M{{ $x }} {{ $top }}V{{ $height - 26 }}" />
                    <rect class="bar is-{{ $login['tone'] }}" x="{{ $x - $half }}" y="{{ $from }}"
                        width="{{ $half * 2 }}" height="{{ $to - $from }}" rx="4" />
                    @if ($login['warn'])
                        <circle cx="{{ $x }}" cy="{{ $from + 13 }}" r="{{ $narrow ? 6 : 7.5 }}"
                            class="bang-ground" />
                        <path class="bang"
                            d="M{{ $x - 1.1 }} {{ $from + 8.6 }}h2.2l-.4 5.4h-1.4zM{{ $x }} {{ $from + 15
                                }}a1.2 1.2 0 1 1 -.01 0z" />
                    @endif
                    @if (! $narrow)
                        <text class="bar-note is-{{ $login['tone'] }}" x="{{ $x }}"
                            y="{{ $to + 15 }}" text-anchor="middle">{{ $login['note'] }}</text>
                    @endif
                </a>
            @endforeach
        </svg>
    </div>
    <p class="reach-read soft" aria-live="polite"
        data-rest="Point at a lane or a row, or go there with the keyboard, to see what belongs together.">Point at a
        lane or a row, or go there with the keyboard, to see what belongs together.</p>
    <div class="row-acts">
        @if ($map->closed > 0)
            <a class="act is-quiet" href="{{ $map->url(null, ! $map->showsClosed) }}"
                hx-get="{{ $map->url(null, ! $map->showsClosed) }}" hx-target="#reach-map"
                hx-swap="outerHTML">{{ $map->showsClosed ? 'Hide closed' : "Show {$map->closed} closed" }}</a>
        @endif
        @if ($map->open !== [])
            <a class="act is-quiet" href="/accounts/{{ $account->id }}/map"
                hx-get="/accounts/{{ $account->id }}/map" hx-target="#reach-map" hx-swap="outerHTML">Fold</a>
        @endif
        <a class="act is-quiet" href="/accounts/{{ $account->id }}/reach.csv">As CSV</a>
    </div>
    @if ($map->more > 0)
        <p class="soft">{{ $map->more }} more {{ $map->more === 1 ? 'login is' : 'logins are' }} in the table and
            the CSV file.</p>
    @endif
    <details>
        <summary>The same as a table</summary>
        <table class="facts-table">
            <thead>
                <tr>
                    <th>Login</th>
                    <th>Directory</th>
                    <th>Reach</th>
                    <th>Closes</th>
                </tr>
            </thead>
            <tbody>
                <tr>
                    <td><code>{{ $account->login }}</code></td>
                    <td><code>/</code></td>
                    <td>full account</td>
                    <td>the account’s own login</td>
                </tr>
                @foreach ($account->ftpUsers->reject->hasEnded() as $user)
                    <tr>
                        <td><a href="/ftp-users/{{ $user->id }}"><code>{{ $user->login }}</code></a></td>
                        <td><code>{{ $user->directory }}</code></td>
                        <td>{{ $user->reach()->sentence() }}</td>
                        <td>{{ $user->endsWords() }}</td>
                    </tr>
                @endforeach
            </tbody>
        </table>
        <table class="facts-table">
            <thead>
                <tr>
                    <th>Directory</th>
                    <th>Visitors see it at</th>
                </tr>
            </thead>
            <tbody>
                @foreach ($map->rows as $place)
                    @if ($place['kind'] === 'directory')
                        @php($seen = $account->addressOf(\Cellarium\Core\Path\RemotePath::fromString($place['path'])))<tr>
                            <td><code>{{ $place['path'] }}</code>
                                @if ($place['gone'])
                                    <span class="soft">not there</span>
                                @elseif (! $place['looked'])
                                    <span class="soft">not looked into</span>
                                @endif
                            </td>
                            <td>
                                @if ($seen === null)
                                <span class="soft">not reachable</span>@else<x-address :address="$seen" />
                                @endif
                            </td>
                        </tr>
                    @elseif ($place['kind'] === 'link')
                        <tr>
                            <td><code>{{ $place['path'] }}</code></td>
                            <td>link to <code>{{ $place['target'] === '' ? 'somewhere' : $place['target'] }}</code>
                            </td>
                        </tr>
                    @endif
                @endforeach
            </tbody>
        </table>
    </details>
</div>
