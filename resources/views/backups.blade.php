<x-page title="Backups" place="Backups">
    @if ($site !== null)
        <x-slot:where><x-site-where :site="$site" here="backups"><x-slot:facts><a href="/backups">all
            sites</a></x-slot:facts></x-site-where></x-slot:where>
    @endif
    <section class="sheet">
        <header class="head">
            <h1>Backups <small>{{ $site === null ? 'over all sites' : 'of this site' }}, the newest first</small></h1>
            @if ($site !== null)
                <x-action to="/sites/{{ $site->id }}/backups" main>Back up now</x-action>
            @endif
        </header>
        @include('parts.backups')
    </section>
</x-page>
