@use('App\Packages\ReferencePicture')
@use('Cellarium\Core\Package\Drawing\NodeKind')
@use('App\Text\Breakable')
@php($picture = $references->picture)
<section class="sheet references" id="references" aria-labelledby="references-head">
    <h2 id="references-head">What refers to what
        <small>an arc a reference, broken ones red and dashed; point at a file to see only its own</small></h2>
    @if ($references->open !== '')
        <p class="trail"><a href="{{ $references->to('', '') }}" hx-get="{{ $references->to('', '') }}"
                hx-target="#references" hx-swap="outerHTML">all of it</a>
            @foreach ($references->trail() as $address => $name)
                › <a href="{{ $address }}" hx-get="{{ $address }}" hx-target="#references"
                    hx-swap="outerHTML"><code>{{ Breakable::html($name) }}/</code></a>
            @endforeach
        </p>
    @endif
    @if ($references->isEmpty())
        <p class="calm">No file in it refers to another one.</p>
    @else
        <div class="scroll" tabindex="0" role="group" aria-label="Drawing of the references">
            <svg width="{{ $picture->width }}" height="{{ $picture->height }}" role="group"
                viewBox="0 0 {{ $picture->width }} {{ $picture->height }}"
                aria-label="References between the files; each file leads to the same as a table">
                @if ($picture->apart() !== null)
                    <line class="apart" x1="{{ $picture->apart() }}" x2="{{ $picture->apart() }}" y1="40"
                        y2="{{ $picture->line + 8 }}" />
                @endif
                @foreach ($picture->arcs() as $arc)
                    <path class="arc{{ $arc['arc']->isBroken ? ' is-broken' : '' }}" d="{{ $arc['path'] }}"
                        stroke-width="{{ $arc['weight'] }}" data-from="{{ $arc['arc']->from }}"
                        data-to="{{ $arc['arc']->to }}" />
                @endforeach
                @foreach ($picture->nodes() as $place)
                    @php($address = $references->address($place['node']))
                    <a data-number="{{ $place['number'] }}"
                        @if ($address !== null) href="{{ $address }}" @else tabindex="0" role="img" @endif
                        @if ($references->isChosen($place['node'])) aria-current="true" @endif
                        aria-label="{{ $place['title'] }}"
                        @class([
                            'node',
                            'is-'.$place['node']->kind->value,
                            'is-apart' => ! $place['node']->isReached,
                        ])><title>{{ $place['title'] }}</title>
                        @if ($place['node']->kind === NodeKind::File)
                            <circle cx="{{ $place['x'] }}" cy="{{ $picture->line }}" r="4.5" />
                        @else
                            <rect x="{{ $place['x'] - 5 }}" y="{{ $picture->line - 5 }}" width="10" height="10" />
                        @endif
                        <text aria-hidden="true"
                            transform="translate({{ $place['x'] + 2 }} {{ $picture->line + 14 }}) rotate(42)"
                            >{{ $place['label'] }}</text></a>
                @endforeach
            </svg>
        </div>
        @if ($references->remarks() !== '')
            <p class="soft">{{ $references->remarks() }}</p>
        @endif
        @if ($references->file !== '')
            <h3><x-path :path="$references->file" /></h3>
            <div class="both-sides">
                @include('parts.referring', [
                    'head' => 'Refers to',
                    'paths' => $references->refersTo(),
                    'broken' => $references->broken(),
                ])
                @include('parts.referring', [
                    'head' => 'Referred to from',
                    'paths' => $references->referredFrom(),
                    'broken' => [],
                ])
            </div>
        @endif
    @endif
</section>
