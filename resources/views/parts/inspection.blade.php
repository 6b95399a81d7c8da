@if ($inspection->folder !== null)
    <form method="post" action="/deployments/{{ $deployment->id }}/folder" class="word is-soon" role="status">
        @csrf
        <p><b>Is the folder <x-path :path="$inspection->folder" /> meant, or what lies in it?</b>
            It holds a start page and is not there yet. With the folder, visitors find the page below its name.</p>
        <div class="row-acts">
            <button class="act" name="meant" value="contents" data-once>Upload what lies in it</button>
            <button class="act" name="meant" value="folder" data-once>Upload the folder</button>
        </div>
    </form>
@endif
@if ($inspection->leftOut !== [] || $inspection->groups !== [])
<section class="sheet" aria-labelledby="inspected">
    <h2 id="inspected">{{ $inspection->title() }}</h2>
    @if ($inspection->leftOut !== [])
        <ul>
            @foreach ($inspection->leftOut as $finding)
                <li><x-path :path="$finding->path" /> @words($finding->message)</li>
            @endforeach
        </ul>
        @if ($inspection->isOpen && $mayOverrule)
            <details>
                <summary>Upload one of them all the same</summary>
                <form method="post" action="/deployments/{{ $deployment->id }}/overrule">
                    @csrf
                    @foreach ($inspection->leftOut as $finding)
                        <label class="check"><input type="checkbox" name="paths[]"
                                value="@exactly($finding->path)"><x-path :path="$finding->path" /></label>
                    @endforeach
                    <label for="overrule-reason">because</label>
                    <input class="entry" id="overrule-reason" name="reason" required maxlength="500"
                        autocomplete="off">
                    <div class="row-acts"><button class="act" data-once>Upload them too</button></div>
                </form>
            </details>
        @endif
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
@endif
