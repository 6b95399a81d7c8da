<section class="sheet" aria-labelledby="how">
    <h2 id="how">How it is replaced</h2>
    <form method="post" action="/deployments/{{ $deployment->id }}/settings" class="run-settings"
        hx-post="/deployments/{{ $deployment->id }}/settings" hx-trigger="change" hx-target="#run"
        hx-select="#run" hx-swap="outerHTML">@csrf
        <fieldset class="ways">
            <legend class="is-sr-only">Way to replace</legend>
            @foreach ($view->ways->rows() as $row)
                <label @class(['is-chosen' => $row['chosen'], 'is-barred' => $row['barred'] !== null])>
                    <input type="radio" name="way" value="{{ $row['way']->value }}" @checked($row['chosen'])
                        @disabled($row['barred'] !== null || ! $maySet)>
                    <span>
                        <b>{{ $row['way']->label() }}</b>
                        <span class="soft">{{ $row['way']->sentence() }}</span>
                        @if ($row['barred'] !== null)
                            <span class="why">Not here: <bdi>{{ $row['barred'] }}</bdi>.</span>
                        @else
                            <span class="costs"><span>takes <b>{{ $row['takes'] }}</b></span>
                                <span>mixed pages: <b>{{ $row['mixed'] }}</b></span></span>
                            @if ($row['rests'] !== '')
                                <span class="soft">{{ $row['rests'] }}</span>
                            @endif
                        @endif
                    </span>
                </label>
            @endforeach
        </fieldset>
        @if ($view->ways->why() !== '')
            <p class="soft">{{ $view->ways->why() }}</p>
        @endif
        @if ($maySet)
            <div class="settings">
                <label>Connections
                    <select class="entry" name="connections">
                        @foreach ($view->connectionChoices() as $value => $words)
                            <option value="{{ $value }}"
                                @selected((string) $deployment->connections === (string) $value)>{{ $words }}</option>
                        @endforeach
                    </select>
                </label>
                <label>Proof
                    <select class="entry" name="proof">
                        @foreach ($view->proofChoices() as $value => $words)
                            <option value="{{ $value }}" @selected($view->proof() === (string) $value)>{{ $words }}
                            </option>
                        @endforeach
                    </select>
                </label>
                <label>Ends
                    <select class="entry" name="proof_stops">
                        <option value="1" @selected($deployment->proof_stops)>at the first failure</option>
                        <option value="0" @selected(! $deployment->proof_stops)>once every failure is named</option>
                    </select>
                </label>
            </div>
            @if ($view->readsBack())
                <p class="soft">{{ $view->whyReadBack() }}</p>
            @endif
            <noscript><button class="act">Save</button></noscript>
        @endif
    </form>
</section>
