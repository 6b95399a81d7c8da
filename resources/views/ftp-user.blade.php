<x-page :title="$user->login" place="Accounts">
    <x-slot:where>
        <x-where :client="$account->client"><a
                href="/accounts/{{ $account->id }}"><b>{{ $account->client->name }}</b></a><i>›</i><a
                href="/accounts/{{ $account->id }}"><x-path :path="$account->title()" /></a><i>›</i><code>{{
                    $user->login }}</code>
            <x-slot:facts><span>{{ $user->purpose }}</span><span>{{ $user->person === null ? ''
                : 'made by '.$user->person->shortName() }}</span></x-slot:facts>
        </x-where>
    </x-slot:where>
    @include('parts.ftp-user')
</x-page>
