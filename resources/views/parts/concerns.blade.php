@foreach ($groups as $group)
    @if ($only !== null || ! $group->isFolded())
        @foreach ($group->shown() as $concern)
            <li class="sheet concern">
                <div>
                    <h2>{{ $concern->title }} <x-tag
                        :tone="$concern->urgency->tone()">{{ $concern->urgency->label() }}</x-tag></h2>
                    <p class="about"><x-about :concern="$concern" /></p>
                    <p class="evidence"><bdi>@words($concern->evidence)</bdi></p>
                </div>
                <x-action :to="$concern->url" :method="$concern->method"
                    aria-label="{{ $concern->action }}: {{ $concern->about }}">{{ $concern->action }}</x-action>
            </li>
        @endforeach
        @if ($group->notShown() > 0)
            <li class="folded">and {{ $group->notShown() }} more; these come first</li>
        @endif
    @else
        <li class="sheet concern-group">
            <header>
                <h2>{{ $group->title() }} <b>{{ number_format(count($group->concerns)) }}</b> <x-tag
                        :tone="$group->urgency()->tone()">{{ $group->urgency()->label() }}</x-tag></h2>
                @php($all = $group->actionForAll())
                @if ($all !== null)
                    <x-action :to="$all['url']" :method="$all['method']">{{ $all['label'] }}</x-action>
                @endif
            </header>
            <ul>
                @foreach ($group->worst() as $concern)
                    <li>
                        <span><b><x-about :concern="$concern" /></b> <span
                                class="soft"><bdi>{{ $group->isOfOneTitle() ? ''
                                    : "$concern->title. " }}{{ $concern->evidence }}</bdi></span></span>
                        <x-action :to="$concern->url" :method="$concern->method"
                            aria-label="{{ $concern->action }}: {{ $concern->about }}">{{ $concern->action }}</x-action>
                    </li>
                @endforeach
            </ul>
            <p><a href="/?{{ http_build_query(['kind' => $group->kind->value]) }}">Show all
                    {{ number_format(count($group->concerns)) }}</a></p>
        </li>
    @endif
@endforeach
