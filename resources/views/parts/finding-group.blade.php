@use('Cellarium\Core\Package\Mend\Mend')
<section class="finding">
    <header class="head">
        <h3><x-tag :tone="$group->tone()">{{ $group->label() }}</x-tag> {{ $group->title() }}
            @if (count($group->findings) > 1)
                <b>{{ number_format(count($group->findings)) }}</b>
            @endif
            <small>{{ $group->code->value }}</small></h3>
        @if ($group->mendLabel() !== null)
            <x-action :to="'/packages/'.$page->package->id.'/mend?what='.$group->code->value" method="GET"
                >{{ $group->mendLabel() }}</x-action>
        @endif
    </header>
    <ul>
        @foreach ($group->first() as $finding)
            <li>@include('parts.finding', ['place' => $page->place($finding)])
                @if (count($group->findings) > 1 && Mend::forFinding($finding) !== null)
                    <x-link
                        :to="'/packages/'.$page->package->id.'/mend?what='.urlencode(Mend::forFinding($finding)->key())"
                        >only this</x-link>
                @endif
            </li>
        @endforeach
    </ul>
    @if ($group->others() !== [])
        <details>
            <summary>{{ count($group->others()) }} more like these</summary>
            <ul>
                @foreach ($group->others() as $finding)
                    <li>@include('parts.finding', ['place' => null])</li>
                @endforeach
            </ul>
            @if ($group->notShown() > 0)
                <p class="soft">and {{ number_format($group->notShown()) }} more;
                    <code>php artisan cellarium:inspect</code> lists them all</p>
            @endif
        </details>
    @endif
</section>
