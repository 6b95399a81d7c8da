<section class="sheet" aria-labelledby="how">
    <h2 id="how">How it is replaced</h2>
    <p>File by file: all of it is sent beside what it replaces and compared, then renamed, the start page last.</p>
    <dl class="pairs">
        <dt>Takes</dt>
        <dd>{{ $view->takes() }}</dd>
        <dt>Visitors see</dt>
        <dd>{{ $view->mixed() }}</dd>
    </dl>
    @leads("/deployments/$deployment->id/settings", 'POST')
        <form method="post" action="/deployments/{{ $deployment->id }}/settings" class="run-settings"
            hx-post="/deployments/{{ $deployment->id }}/settings" hx-trigger="change" hx-target="#run"
            hx-select="#run" hx-swap="outerHTML">@csrf
            <label>Connections
                <select class="entry" name="connections">
                    @foreach ($view->connectionChoices() as $value => $words)
                        <option value="{{ $value }}" @selected((string) $deployment->connections === (string) $value)>{{
                            $words }}</option>
                    @endforeach
                </select>
            </label>
            <label>Proof
                <select class="entry" name="proof_stops">
                    <option value="1" @selected($deployment->proof_stops)>ends at the first failure</option>
                    <option value="0" @selected(! $deployment->proof_stops)>names every failure</option>
                </select>
            </label>
            <noscript><button class="act">Save</button></noscript>
        </form>
    @endleads
</section>
