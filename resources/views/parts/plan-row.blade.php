<tr class="{{ $row->directory ? 'is-directory' : '' }}" data-path="{{ $row->path }}" data-in="{{ $row->parent() }}">
    <td class="depth-{{ $row->depth }}">
        @if ($row->folds)
            <button type="button" class="fold" data-fold aria-expanded="{{ $row->isOpen ? 'true' : 'false' }}"
                aria-label="What is in {{ $row->path }}"
                hx-get="{{ $rowsAt }}{{ http_build_query(['in' => $row->path]) }}"
                hx-include="#plan-filter" hx-target="closest tr" hx-swap="afterend"></button>
        @endif
        <x-path :path="$row->shown()" />
        @if ($row->address !== null)
            <button type="button" class="link on-hover" data-copy="@exactly($row->address)"
                aria-label="copy address of {{ $row->path }}">copy address</button>
        @endif
    </td>
    @foreach ($row->sides($deployment?->hasThreeSides() === true) as $name => [$size, $time])
        <td data-side="{{ $name }}" @class(['is-other' => $row->isOther($name)])>{{ $size }}
            @if ($time !== '')
                <span class="soft">{{ $time }}</span>
            @endif
        </td>
    @endforeach
    <td>
        @foreach ($row->sums as $sum)
            <span class="sum">{{ $sum }}</span>
        @endforeach
        @if ($row->conflict !== '')
            <x-tag tone="soon">{{ $row->conflict }}</x-tag>
            @if ($row->choice === '' && $row->why !== '')
                <span class="soft">{{ $row->why }}</span>
            @endif
        @endif
        @if ($row->change !== '' && ($row->conflict === '' || $row->choice !== ''))
            <x-tag :tone="$row->tone">{{ $row->change }}</x-tag>
            <span class="soft">{{ $row->why }}</span>
        @endif
        @if ($row->mode !== '')
            <x-tag tone="kept">{{ $row->mode }}</x-tag>
        @endif
        @if ($row->asks($deployment))
            <div class="row-acts answers">
                @if (! $row->directory)
                    <x-action :to="$row->lookAt($deployment)" method="GET">{{ $row->look() }}</x-action>
                @endif
                @foreach ($row->choices as $choice => $words)
                    @include('parts.answer', ['scope' => $row->scope(), 'isChosen' => $row->choice === $choice])
                @endforeach
            </div>
        @endif
    </td>
</tr>
