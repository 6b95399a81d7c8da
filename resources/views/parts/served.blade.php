@use('Cellarium\Core\Package\ServedAs')
<tr>
    <td><x-path :path="rawurldecode($served->address)" /></td>
    <td data-label="gives">
        @if ($served->as === ServedAs::Page)
            <x-path :path="$served->file" />
        @elseif ($served->as === ServedAs::Listing && $served->hasPages)
            <x-tag tone="soon">a listing: no start page</x-tag>
        @elseif ($served->as === ServedAs::Listing)
            <span class="soft">no pages; a listing, or nothing</span>
        @else
            <x-tag tone="now">anyone could fetch it</x-tag>
        @endif
    </td>
</tr>
