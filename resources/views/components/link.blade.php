@props(['to'])
{{-- A link where whoever looks may go there; else only its words. --}}
@leads($to)
<a href="{{ $to }}" {{ $attributes }}>{{ $slot }}</a>
@else
<span {{ $attributes }}>{{ $slot }}</span>
@endleads
