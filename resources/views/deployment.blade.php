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
    @if ($originals !== null)
        @leads($originals['action'], 'POST')
            <form method="post" action="{{ $originals['action'] }}" class="word is-soon">
                @csrf
                <input type="hidden" name="do" value="set_aside">
                <input type="hidden" name="at" value="@exactly($originals['at'])">
                @foreach ($originals['names'] as $name)
                    <input type="hidden" name="names[]" value="@exactly($name)">
                @endforeach
                They were to be moved, and are proven here. The originals still lie in {{ $originals['where'] }}.
                <button class="act" data-once>Set the originals aside</button>
            </form>
        @endleads
    @endif
    @include($view === null ? 'parts.drafting' : 'parts.deployment')
</x-page>
