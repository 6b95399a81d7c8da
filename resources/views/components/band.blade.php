@props(['client', 'height' => 24])
{{-- A client's colour with the letters of its name, for those who do not see colours. --}}
<svg class="band" width="26" height="{{ $height }}" viewBox="0 0 26 {{ $height }}" aria-hidden="true">
    <rect width="6" height="{{ $height }}" rx="2" fill="{{ $client->colour }}" /><text x="10"
        y="{{ $height / 2 + 4 }}">{{ $client->mark() }}</text>
</svg>
