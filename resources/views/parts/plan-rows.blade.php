@foreach ($rows->rows as $row)
    @include('parts.plan-row')
@endforeach
@if ($rows->more > 0)
    <tr data-in="{{ $rows->directory }}">
        <td class="depth-{{ min(8, $rows->depth) }}" colspan="5"><button type="button" class="link"
                hx-get="{{ $rowsAt }}{{ http_build_query(($rows->isFound ? [] : ['in' => $rows->directory])
                    + ['from' => $rows->next]) }}"
                hx-include="#plan-filter" hx-target="closest tr" hx-swap="outerHTML">Show more of
                {{ number_format($rows->more) }} that follow</button></td>
    </tr>
@endif
