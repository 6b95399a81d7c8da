@props(['caption', 'kind' => 'facts-table'])
{{-- Rows of facts. Its caption is for whoever hears the page; who sees it has the heading above. --}}
<table {{ $attributes->class([$kind]) }}>
    <caption class="is-sr-only">{{ $caption }}</caption>
    {{ $slot }}
</table>
