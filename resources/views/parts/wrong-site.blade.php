<div class="word is-trouble" role="alert">
    <p>Another site fits better:
        <a href="/deployments/new?{{ http_build_query(['package' => $package->id, 'site' => $better->site->id]) }}"
            ><b><x-domain :name="$better->site->domain" /></b></a> of {{ $better->site->account->client->name }}.
        {{ ucfirst($better->fit->inWords()) }}.</p>
</div>
