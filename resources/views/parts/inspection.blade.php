<section class="sheet" aria-labelledby="inspected">
    <h2 id="inspected">{{ $inspection->title() }}</h2>
    @if ($inspection->leftOut !== [])
        <form method="post" action="/deployments/{{ $deployment->id }}/overrule">
            @csrf
            <ul class="left-out">
                @foreach ($inspection->leftOut as $finding)
                    <li>
                        @if ($inspection->isOpen && $mayOverrule)
                            <label class="check">
                                <input type="checkbox" name="paths[]" value="@exactly($finding->path)">
                                <span>@include('parts.finding-words')</span>
                            </label>
                        @else
                            @include('parts.finding-words')
                        @endif
                    </li>
                @endforeach
            </ul>
            @if ($inspection->isOpen && $mayOverrule)
                <label for="overrule-reason">Ticked ones go all the same, because</label>
                <div class="row-acts">
                    <input class="entry" id="overrule-reason" name="reason" required maxlength="500"
                        autocomplete="off">
                    <button class="act" data-once>Upload them too</button>
                </div>
                <p class="soft">Everything else goes up as planned. To send nothing, leave the plan as it is.</p>
            @endif
        </form>
    @endif
    @foreach ($inspection->groups as $group)
        <section class="finding">
            <header class="head">
                <h3><x-tag :tone="$group->tone()">{{ $group->label() }}</x-tag> {{ $group->title() }}
                    @if (count($group->findings) > 1)
                        <b>{{ number_format(count($group->findings)) }}</b>
                    @endif
                </h3>
                @if ($inspection->isOpen && $inspection->corrections > 0
                    && $group->code === \Cellarium\Core\Package\Finding\FindingCode::ReferenceCase)
                    <x-action to="/deployments/{{ $deployment->id }}/correct">{{ $inspection->corrections === 1
                        ? 'Correct it' : 'Correct all' }}</x-action>
                @endif
            </header>
            <ul>
                @foreach ($group->first() as $finding)
                    <li>@include('parts.finding', ['place' => null])</li>
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
                </details>
            @endif
        </section>
    @endforeach
</section>
