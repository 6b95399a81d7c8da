<x-page :title="$view?->title() ?? $deployment->title().' to '.$site->domain" place="Deployments">
    <x-slot:where>
        <x-site-where :site="$site" here="deployment">
            <x-slot:facts><span>{{ $deployment->title() }}</span>
                @if ($deployment->person !== null)
                    <span>by {{ $deployment->person->shortName() }}{{ $deployment->person->isClosed()
                        ? ', who is closed' : '' }}</span>
                @endif
                @if ($deployment->planned_at)
                    <span>plan made
                        {{ $deployment->planned_at->shown($deployment->planned_at->isToday() ? 'H:i'
                            : 'j M H:i') }}</span>
                @endif
            </x-slot:facts>
        </x-site-where>
    </x-slot:where>
    @if ($deployment->reason !== null)
        <p class="word">Another site fitted better. It goes here all the same, because:
            <bdi>{{ $deployment->reason }}</bdi></p>
    @endif
    @include($view === null ? 'parts.drafting' : 'parts.deployment')
</x-page>
