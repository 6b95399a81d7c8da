<div class="word is-trouble" role="alert">
    <p>Another site fits better: {{ $better->fit->inWords() }} in {{ $package->title() }} are of
        <a href="/deployments/new?{{ http_build_query(['package' => $package->id, 'site' => $better->site->id]) }}"
            ><b><x-domain :name="$better->site->domain" /></b></a> ({{ $better->site->account->client->name }}).</p>
</div>
