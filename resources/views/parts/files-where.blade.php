@php($client = $place->site?->owner() ?? $place->account->client)
<x-where :client="$client">
    <b>{{ $client->name }}</b><i>›</i>
    @if ($place->site !== null)
        <a href="/sites/{{ $place->site->id }}"><b><x-domain :name="$place->site->domain" /></b></a><i>›</i>
    @else
        <a href="/accounts/{{ $place->account->id }}"><b><x-path :path="$place->account->title()" /></b></a><i>›</i>
    @endif
    @if ($place->at->equals($place->base))
        <x-path :path="$place->base->toString()" />
    @else
        <a href="{{ $place->url($place->base) }}"
            @if (count($place->trail()) === 1) data-up @endif><x-path :path="$place->base->toString()" /></a>
        @foreach ($place->trail() as [$name, $there])
            <i>›</i>
            @if ($loop->last)
                <b><x-path :path="$name" /></b>
            @else
                <a href="{{ $place->url($there) }}"
                    @if ($loop->remaining === 1) data-up @endif><x-path :path="$name" /></a>
            @endif
        @endforeach
    @endif
    <x-slot:facts>
        @if ($place->addressOf($place->at) !== null)
            <span>visitors see it at <x-path
                    :path="(string) parse_url($place->addressOf($place->at), PHP_URL_PATH) ?: '/'" /></span>
        @else
            <span>no address leads here</span>
        @endif
        @if ($place->account->space_used !== null && $place->account->space_limit !== null)
            <span>{{ \App\Text\Amount::bytes($place->account->space_used) }} of
                {{ \App\Text\Amount::bytes($place->account->space_limit) }}</span>
        @endif
    </x-slot:facts>
</x-where>
