<x-page :title="$view->item->path->name().' of '.$site->domain" place="Deployments">
    <x-slot:where>
        <x-site-where :site="$site" here="deployment">
            <x-slot:facts><span>{{ $deployment->title() }}</span></x-slot:facts>
        </x-site-where>
    </x-slot:where>
    <section class="sheet" aria-labelledby="file">
        <header class="head">
            <h1 id="file"><x-path :path="$view->item->path->toString()" />
                @if ($view->row->conflict !== '')
                    <x-tag tone="soon">{{ $view->row->conflict }}</x-tag>
                @endif
            </h1>
            <div class="row-acts">
                @if ($view->row->asks($deployment))
                    @foreach ($view->row->choices as $choice => $words)
                        @include('parts.answer', [
                            'scope' => $view->row->scope(),
                            'isChosen' => $view->row->choice === $choice,
                        ])
                    @endforeach
                @endif
                <a class="act is-quiet" href="/deployments/{{ $deployment->id }}">Back to the plan</a>
            </div>
        </header>
        <div class="sides">
            @foreach ($view->sides() as $side)
                <section aria-label="{{ $side->label($view->deployment) }}">
                    <h2>{{ $side->label($view->deployment) }}
                        @if ($side->value === 'deployed')
                            <small>{{ $deployment->comparedWith?->ended_at?->shown('j M Y H:i') }}</small>
                        @endif
                    </h2>
                    <dl class="pairs">
                        @foreach ($view->facts($side) as $term => $words)
                            <dt>{{ $term }}</dt>
                            <dd title="{{ $words }}">{{ strlen($words) === 64 ? substr($words, 0, 16).'…' : $words }}
                            </dd>
                        @endforeach
                    </dl>
                    @if ($view->isPicture())
                        <img src="{{ $view->address($side) }}" alt="{{ $side->label($view->deployment) }}">
                    @endif
                </section>
            @endforeach
        </div>
        @if ($view->isHidden)
            <p class="calm">Its name says that passwords may stand in it. It is shown to those who may see them.</p>
        @elseif (($texts = $view->texts()) !== null)
            @if ($texts->differOnlyInLineEnds)
                <p class="calm">The lines are the same; only the line ends differ, or the way the last one ends.</p>
            @endif
            @include('parts.side-by-side', ['heads' => array_map(
                static fn ($side): string => $side->label($view->deployment),
                $view->sides(),
            )])
        @elseif (! $view->isPicture())
            <p class="calm">It is no text that can be laid side by side, is too long for it, or what it held is no
                longer here; size, time and hash tell the sides apart.</p>
        @endif
    </section>
</x-page>
