@php($rows = $tree->rows())
<table class="facts-table tree plan" id="plan-table">
    <thead>
        <tr>
            <th>Directory or file</th>
            @if ($deployment?->hasThreeSides() === true)
                <th>Last deployed
                    <span class="soft">{{ $deployment->comparedWith->ended_at?->shown('j M') }}</span></th>
            @endif
            <th>{{ $deployment?->state->isOver() === true ? 'On the server before' : 'On the server now' }}</th>
            <th>{{ $deployment?->bringsBack() === true ? 'In the backup' : 'In the package' }}</th>
            <th>Afterwards</th>
        </tr>
    </thead>
    <tbody>
        @if ($rows->rows === [])
            <tr>
                <td colspan="5" class="soft">No file fits that.</td>
            </tr>
        @endif
        @include('parts.plan-rows')
    </tbody>
</table>
