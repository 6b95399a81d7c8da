<ol class="track" id="track" aria-label="Stations" @isset($oob) hx-swap-oob="true" @endisset>
    @foreach ($view->stations as $station)
        <li class="is-{{ $station['state']->value }}">
            <svg viewBox="0 0 22 24" width="22" height="24" aria-hidden="true">
                <path d="M2 23V11a9 9 0 0 1 18 0v12z" />
            </svg>
            <b>{{ $station['name'] }}</b> <span>{{ $station['note'] }}</span>
            <span class="is-sr-only">{{ $station['state']->words() }}</span>
        </li>
    @endforeach
</ol>
