@use('App\Models\RemovableKind')
<x-page :title="'Removed: '.$name" place="Accounts">
    <x-slot:where>
        <x-where :client="$client"><b>{{ $client->name }}</b><i>›</i><b><x-domain :name="$name" /></b></x-where>
    </x-slot:where>
    <section class="sheet is-narrow" aria-labelledby="removed">
        <h1 id="removed">Removed {{ $subject->removed_at->shown('j M Y H:i') }}</h1>
        <p>The {{ $name }} is no longer looked after here. Nothing was removed at the host.</p>
        @if ($until->isFuture())
            <p>Its removal, with all that went with it, can be undone until {{ $until->shown('j M Y H:i') }}.</p>
            <x-action to="/removals/{{ $kind->value }}/{{ $subject->id }}/undo" main>Undo the removal</x-action>
        @else
            <p>Its passwords and keys were erased {{ $until->shown('j M Y') }}; to look after it again, add it
                anew.</p>
        @endif
        @if ($kind === RemovableKind::Site)
            <p class="soft apart">Its backups stay
                {{ $subject->backups_until === null ? 'for ever' : 'until '.$subject->backups_until->shown('j M Y') }}:
                <a href="/backups?site={{ $subject->id }}">see them</a>.</p>
        @endif
        <p class="soft apart">The record keeps what was done: <a href="/record">see it</a>.</p>
    </section>
</x-page>
