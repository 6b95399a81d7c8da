@props(['to', 'main' => false, 'method' => 'POST'])
{{-- Nothing where whoever looks may not do it: the route says so. --}}
@leads($to, $method)
@if ($method === 'GET')
    <a class="act{{ $main ? ' is-main' : '' }}" href="{{ $to }}" {{ $attributes }}>{{ $slot }}</a>
@else
    <form method="post" action="{{ $to }}" class="act-form">@csrf<button class="act{{ $main ? ' is-main' : '' }}"
            data-once {{ $attributes }}>{{ $slot }}</button></form>
@endif
@endleads
