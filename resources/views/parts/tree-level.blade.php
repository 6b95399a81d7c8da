@use('Cellarium\Core\Words\Count')
@php($here = $tree->at($at))
@php($inside = $tree->inside($at))
@if ($at->depth() === 0)
    <ul class="branches">
        <li><button type="button" class="pick" data-pick="/" data-into="directory"><code>/</code></button> <span
                class="soft">the whole account</span>
@endif
@if (! $here->looked)
    <p class="soft">not looked at yet</p>
@elseif ($inside === [] && $here->files === 0 && $here->links === [])
    <p class="soft">empty</p>
@else
    <ul class="branches">
        @foreach ($inside as $directory)
            @php($seen = $tree->at($directory))
            @php($id = 'at-'.substr(hash('sha256', $directory->toString()), 0, 10))
            @php($below = count($tree->inside($directory)))
            <li>
                @if (! $seen->looked || $below > 0)
                    <button type="button" class="twig"
                        hx-get="/accounts/{{ $account->id }}/tree?{{ http_build_query(['at' => $directory->toString()])
                            }}"
                        hx-target="#{{ $id }}" aria-label="Look into {{ $directory }}"
                        data-sign="{{ $seen->looked ? '+' : '?' }}">{{ $seen->looked ? '+' : '?' }}</button>
                @else<span class="twig is-end" aria-hidden="true">·</span>
                @endif
                <button type="button" class="pick" data-pick="@exactly($directory)" data-into="directory"
                    aria-label="{{ $directory->name() }}, choose {{ $directory }}"><code>{{ $directory->name()
                        }}</code></button>
                @if (isset($roots[$directory->toString()]))
                    <span class="proof">⌂
                        {{ $roots[$directory->toString()] === $directory->name() ? 'its document root'
                            : $roots[$directory->toString()] }}</span>
                @endif
                <span class="soft">
                    @if (! $seen->looked)
                        not looked at yet
                    @elseif ($below === 0 && $seen->files === 0)
                        empty
                    @elseif ($below === 0)
                        {{ Count::words($seen->files, 'file') }}
                    @endif
                </span>
                @if ($seen->secrets !== [] || $seen->backups !== [])
                    <x-tag tone="soon">{{ $seen->secrets !== [] ? 'secrets' : 'backups' }}</x-tag>
                @endif
                <div id="{{ $id }}"></div>
            </li>
        @endforeach
        @if ($here->files > 0)
            <li class="soft">{{ Count::words($here->files, 'file') }}</li>
        @endif
        @foreach ($here->links as $name => $target)
            <li class="soft"><x-path :path="$name" /> → {{ $target ?? 'somewhere' }}</li>
        @endforeach
    </ul>
@endif
@if ($at->depth() === 0)
    </li>
    </ul>
@endif
