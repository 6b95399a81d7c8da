@props(['path'])
{{-- A path may be broken after a slash, before it is broken anywhere. --}}
<code {{ $attributes }}>@foreach (explode('/',
    $path) as $at => $name)@if ($at > 0)/<wbr>@endif{{ $name }}@endforeach</code>
