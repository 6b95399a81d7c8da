@props(['client'])
<div class="where">
    <svg class="band" width="6" height="24" aria-hidden="true"><rect width="6" height="24" rx="2" fill="{{ $client->colour }}"/></svg>
    <div class="trail">{{ $slot }}</div>
    <div class="facts">{{ $facts ?? '' }}</div>
</div>
