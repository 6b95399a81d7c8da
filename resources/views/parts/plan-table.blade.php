@use('App\Plans\PlanSide')
@php($rows = $tree->rows())
<table class="facts-table tree plan" id="plan-table">
    <thead>
        <tr>
            <th>Directory or file</th>
            @if ($deployment?->hasThreeSides() === true)
                <th>Last deployed
                    <span class="soft">{{ $deployment->comparedWith->ended_at?->shown('j M') }}</span></th>
            @endif
            <th>{{ PlanSide::Live->label($deployment) }}</th>
            <th>{{ PlanSide::Package->label($deployment) }}</th>
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
