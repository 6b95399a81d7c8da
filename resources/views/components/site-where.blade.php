@props(['site', 'here' => null])
<x-where :client="$site->owner()">
    <b>{{ $site->owner()->name }}</b><i>›</i>
    @leads("/accounts/$site->account_id")
        <a href="/accounts/{{ $site->account_id }}"><x-path :path="$site->account->title()" /></a><i>›</i>
    @endleads
    @if ($here === null)
        <b><x-domain :name="$site->domain" /></b>
    @else
        <a href="/sites/{{ $site->id }}"><b><x-domain :name="$site->domain" /></b></a><i>›</i><span>{{ $here }}</span>
    @endif
    <x-slot:facts>{{ $facts ?? '' }}</x-slot:facts>
</x-where>
