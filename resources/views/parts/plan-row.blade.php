<tr class="{{ $row->directory ? 'is-directory' : '' }}">
    <td class="depth-{{ $row->depth }}">
        <x-path :path="$row->path" />
        @if ($row->address !== null)
            <button type="button" class="link on-hover" data-copy="@exactly($row->address)"
                aria-label="copy address of {{ $row->path }}">copy address</button>
        @endif
    </td>
    @foreach ([$row->target, $row->live] as [$size, $time])
        <td>{{ $size }}
            @if ($time !== '')
                <span class="soft">{{ $time }}</span>
            @endif
        </td>
    @endforeach
    <td>
        @foreach ($row->sums as $sum)
            <span class="sum">{{ $sum }}</span>
        @endforeach
        @if ($row->mode !== '')
            <x-tag tone="kept">{{ $row->mode }}</x-tag>
        @endif
        @if ($row->change !== '')
            <x-tag :tone="$row->tone">{{ $row->change }}</x-tag>
            <span class="soft">{{ $row->why }}</span>
        @endif
    </td>
</tr>
