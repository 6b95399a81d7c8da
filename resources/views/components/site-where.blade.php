@props(['site', 'here' => null])
<x-where :client="$site->account->client">
    <b>{{ $site->account->client->name }}</b><i>›</i>
    <a href="/accounts/{{ $site->account_id }}"><x-path :path="$site->account->title()" /></a><i>›</i>
    @if ($here === null)
        <b><x-domain :name="$site->domain" /></b>
    @else
        <a href="/sites/{{ $site->id }}"><b><x-domain :name="$site->domain" /></b></a><i>›</i><span>{{ $here }}</span>
    @endif
    <x-slot:facts>{{ $facts ?? '' }}</x-slot:facts>
</x-where>
