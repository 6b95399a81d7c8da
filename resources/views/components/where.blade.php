@props(['client'])
<div class="where">
    <x-band :client="$client" />
    <div class="trail">{{ $slot }}</div>
    <div class="facts">{{ $facts ?? '' }}</div>
</div>
