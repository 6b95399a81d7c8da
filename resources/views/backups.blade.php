<x-page title="Backups" place="Backups">
    @if ($site !== null)
        <x-slot:where><x-site-where :site="$site" here="backups"><x-slot:facts><a href="/backups">all
            sites</a></x-slot:facts></x-site-where></x-slot:where>
    @endif
    <div class="stack">
    @if ($rule !== null)
        <section class="sheet" aria-labelledby="kept">
            <header class="head">
                <h1 id="kept">What is kept <small>{{ $rule->keeps() }}</small></h1>
                <div class="row-acts">
                    <x-action to="/sites/{{ $site->id }}/moments" method="GET">Compare two</x-action>
                    <x-action to="/sites/{{ $site->id }}/backup-rule" method="GET">Change the rule</x-action>
                    <x-action to="/sites/{{ $site->id }}/rehearsals">Rehearse the newest</x-action>
                    <x-action to="/sites/{{ $site->id }}/backups" main>Back up now</x-action>
                </div>
            </header>
            <p class="soft">Promised {{ $rule->every() }}{{ $rule->kept()->waitsForQuiet()
                ? ", taken between {$rule->quietHours()} ($rule->zone)" : '' }}.
                @if ($site->backup_promised_at?->isPast())
                    <x-tag tone="soon">overdue</x-tag>
                @elseif ($site->backup_promised_at !== null)
                    Kept until {{ $site->backup_promised_at->shown('j M Y H:i') }}.
                @endif
                {{ $site->rehearsed_at === null ? 'Never rehearsed.'
                    : 'Rehearsed '.$site->rehearsed_at->shown('j M Y H:i').'.' }}</p>
            @if ($drawing !== null)
                @include('parts.retention')
            @endif
        </section>
    @endif
    <section class="sheet">
        <header class="head">
            @if ($site === null)
                <h1>Backups <small>over all sites, the newest first</small></h1>
                <x-action to="/backups/sites" method="GET">How every site stands</x-action>
            @else
                <h2>Backups <small>of this site, the newest first</small></h2>
            @endif
        </header>
        @include('parts.backups')
    </section>
    </div>
</x-page>
