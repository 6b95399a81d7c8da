<x-page :title="$deployment->title().' to '.$site->domain" place="Deployments">
    <x-slot:where>
        <x-where :client="$account->client">
            <a
                href="/accounts/{{ $account->id }}"><b>{{ $account->client->name }}</b></a><i>›</i><b>{{ $site->domain
                    }}</b><i>›</i><code>{{ $site->document_root }}</code>
            <x-slot:facts><span>{{ $deployment->title() }}</span>
                @if ($deployment->planned_at)
                    <span>plan made
                        {{ $deployment->planned_at->format($deployment->planned_at->isToday() ? 'H:i'
                            : 'j M H:i') }}</span>
                @endif
            </x-slot:facts>
        </x-where>
    </x-slot:where>
    @include($view === null ? 'parts.drafting' : 'parts.deployment')
</x-page>
