@use('Cellarium\Core\File\SideMark')
<div class="scroll" tabindex="0" role="group" aria-label="The texts side by side">
    <x-table caption="Both texts side by side" kind="side-by-side" class="is-sides">
        <thead>
            <tr>
                @foreach ($heads as $head)
                    <th scope="col">{{ $head }}</th>
                @endforeach
            </tr>
        </thead>
        <tbody>
            @foreach ($texts->rows as $row)
                @if ($row === [])
                    <tr class="is-left-out">
                        <td colspan="{{ count($heads) }}">…</td>
                    </tr>
                @else
                    <tr>
                        @foreach ($row as $line)
                            <td class="is-{{ $line->mark->value }}"><code>{{ $line->text }}</code>
                                @if ($line->mark === SideMark::Removed)
                                    <span class="soft">not here</span>
                                @endif
                            </td>
                        @endforeach
                    </tr>
                @endif
            @endforeach
        </tbody>
    </x-table>
</div>
