@use('Cellarium\Core\Words\Count')
@php($drawing = $map->drawing())
<div id="reach-map">
    <div class="reach" tabindex="0" role="group" aria-label="Reach map, lights up where it is pointed at">
        <svg width="{{ $drawing->width }}" height="{{ $drawing->height }}"
            viewBox="0 0 {{ $drawing->width }} {{ $drawing->height }}" role="group"
            aria-label="Directories and what each login can touch; the same facts are in the table below">
            @foreach ($drawing->rows() as $drawn)
                <g class="row" data-row="{{ $drawn['number'] }}">
                    <rect class="stripe{{ $drawn['number'] % 2 === 0 ? ' is-dark' : '' }}" x="0" y="{{ $drawn['y'] }}"
                        width="{{ $drawing->width }}" height="{{ $drawn['height'] }}" />
                    @if ($drawn['row']->depth > 0)
                        <path class="branch"
                            d="M{{ $drawn['x'] - 13 }} {{ $drawn['y'] }}v{{ $drawn['height'] / 2 }}h8" />
                    @endif
                    @if ($drawn['row']->isFold())
                        <a class="fold" href="{{ $map->url($drawn['row']->path) }}"
                            aria-label="Show {{ $drawn['row']->name }} in {{ $drawn['row']->path }}"><text
                                class="unlooked" x="{{ $drawn['x'] }}"
                                y="{{ $drawn['nameAt'] }}">{{ $drawn['name'] }}</text></a>
                    @else
                        <text class="place{{ $drawn['row']->isLink() ? ' is-link' : '' }}" x="{{ $drawn['x'] }}"
                            y="{{ $drawn['nameAt'] }}">{{ $drawn['name'] }}
                            @if ($drawn['row']->secrets > 0)
                                <tspan class="secret" dx="8">{{ $drawn['row']->secretsWords() }}</tspan>
                            @endif
                            @if ($drawn['row']->scripts)
                                <tspan class="secret" dx="8">scripts in uploads</tspan>
                            @endif
                        </text>
                        @if ($drawn['below'] !== '')
                            <text class="{{ $drawn['belowTone'] }}" x="{{ $drawn['x'] }}"
                                y="{{ $drawn['nameAt'] + 15 }}">{{ $drawn['below'] }}</text>
                        @endif
                    @endif
                </g>
            @endforeach
            @foreach ($drawing->leads() as $curve)
                <path class="leads" d="{{ $curve }}" />
            @endforeach
            @foreach ($drawing->lanes() as ['lane' => $lane, 'x' => $x, 'from' => $from, 'to' => $to, 'half' => $half,
                'login' => $login, 'label' => $label])
                <a class="lane is-{{ $lane->tone }}" href="{{ $lane->url }}" data-from="{{ $lane->from }}"
                    data-to="{{ $lane->to }}" data-words="@exactly($lane->words)" aria-label="{{ $label }}">
                    <rect class="touch" x="{{ $x - $drawing->lane / 2 }}" y="{{ $drawing->top }}"
                        width="{{ $drawing->lane }}" height="{{ $drawing->height - $drawing->top }}" />
                    <text class="login is-{{ $lane->tone }}"
                        transform="translate({{ $x - ($drawing->narrow ? 2 : 6) }} {{ $drawing->top - 8 }})
                            rotate({{ $drawing->narrow ? -58 : -30 }})">{{ $login }}</text>
                    <path class="rail" d="M{{ $x }} {{ $drawing->top }}V{{ $drawing->foot() }}" />
                    <rect class="bar is-{{ $lane->tone }}" x="{{ $x - $half }}" y="{{ $from }}"
                        width="{{ $half * 2 }}" height="{{ $to - $from }}" rx="4" />
                    @if ($lane->warn)
                        <circle class="bang-ground" cx="{{ $x }}" cy="{{ $from + 13 }}"
                            r="{{ $drawing->narrow ? 6 : 7.5 }}" />
                        <path class="bang" transform="translate({{ $x }} {{ $from }})"
                            d="M-1.1 8.6h2.2l-.4 5.4h-1.4zM0 15a1.2 1.2 0 1 1 -.01 0z" />
                    @endif
                    @if (! $drawing->narrow)
                        <text class="bar-note is-{{ $lane->tone }}" x="{{ $x }}" y="{{ $to + 15 }}"
                            text-anchor="middle">{{ $lane->note }}</text>
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
            <a class="act is-quiet" href="/accounts/{{ $account->id }}/map" hx-get="/accounts/{{ $account->id }}/map"
                hx-target="#reach-map" hx-swap="outerHTML">Fold</a>
        @endif
        <a class="act is-quiet" href="/accounts/{{ $account->id }}/reach.csv">As CSV</a>
    </div>
    @if ($map->more > 0)
        <p class="soft">{{ Count::words($map->more, 'more login is', 'more logins are') }} in the table and the
            CSV file.</p>
    @endif
    <details>
        <summary>The same as a table</summary>
        <x-table caption="Logins and what they reach">
            <thead>
                <tr>
                    <th scope="col">Login</th>
                    <th scope="col">Directory</th>
                    <th scope="col">Reach</th>
                    <th scope="col">Closes</th>
                </tr>
            </thead>
            <tbody>
                <tr>
                    <td><x-path :path="$account->login" /></td>
                    <td><code>/</code></td>
                    <td>full account</td>
                    <td>the account’s own login</td>
                </tr>
                @foreach ($account->ftpUsers->reject->hasEnded() as $user)
                    <tr>
                        <td><a href="/ftp-users/{{ $user->id }}"><x-path :path="$user->login" /></a></td>
                        <td><x-path :path="$user->directory" /></td>
                        <td>@words($user->reach()->sentence())</td>
                        <td>{{ $user->endsWords() }}</td>
                    </tr>
                @endforeach
            </tbody>
        </x-table>
        <x-table caption="Directories and their addresses">
            <thead>
                <tr>
                    <th scope="col">Directory</th>
                    <th scope="col">Visitors see it at</th>
                </tr>
            </thead>
            <tbody>
                @foreach ($map->rows as $row)
                    @if ($row->isDirectory())
                        <tr>
                            <td><x-path :path="$row->path" /> <span class="soft">@words($row->trouble())</span></td>
                            <td>
                                @if (($seen = $account->addressOf($row->place())) !== null)
                                    <x-address :address="$seen" />
                                @else
                                    <span class="soft">not reachable</span>
                                @endif
                            </td>
                        </tr>
                    @elseif ($row->isLink())
                        <tr>
                            <td><x-path :path="$row->path" /></td>
                            <td>link to <x-path :path="$row->targetWords()" /></td>
                        </tr>
                    @endif
                @endforeach
            </tbody>
        </x-table>
    </details>
</div>
