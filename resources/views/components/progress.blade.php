@props(['percent'])
{{-- How far something has come, in a bar and in a word for whoever hears the page. --}}
<svg {{ $attributes->class(['meter', 'is-wide']) }} viewBox="0 0 100 3" preserveAspectRatio="none" role="img"
    aria-label="{{ $percent }} percent">
    <rect class="all" width="100" height="3" />
    <rect class="part" width="{{ $percent }}" height="3" />
</svg>
