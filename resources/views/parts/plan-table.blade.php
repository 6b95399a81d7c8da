@use('App\Plans\PlanSide')
@php($rows = $tree->rows())
<x-table caption="Plan" class="tree plan" id="plan-table">
    <thead>
        <tr>
            <th scope="col">Directory or file</th>
            @if ($deployment?->hasThreeSides() === true)
                <th scope="col">Last deployed
                    <span class="soft">{{ $deployment->comparedWith->ended_at?->shown('j M') }}</span></th>
            @endif
            <th scope="col">{{ PlanSide::Live->label($deployment) }}</th>
            <th scope="col">{{ PlanSide::Package->label($deployment) }}</th>
            <th scope="col">Afterwards</th>
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
</x-table>
