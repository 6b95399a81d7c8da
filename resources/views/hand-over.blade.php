@use('Cellarium\Core\Words\Count')
<x-page title="Hand over" place="Accounts">
    <x-slot:where><x-where :client="$account->client"><a
                href="/accounts/{{ $account->id }}"><b>{{ $account->client->name }}</b></a><i>›</i><a
                href="/ftp-users/{{ $user->id }}"><x-path :path="$user->login" /></a><i>›</i>hand
            over</x-where></x-slot:where>
    <section class="sheet hand-over is-narrow" aria-labelledby="handed">
        @if ($settings !== null)
            <h1 id="handed">Settings of {{ $user->login }} <small>shown this once</small></h1>
            @include('parts.settings')
        @else
            <h1 id="handed">A link to the settings of {{ $user->login }} <small>shown this once</small></h1>
            <p>It shows the settings a single time, within {{ Count::choose($hours, 'an hour', "$hours hours") }}.
                Send it to whom it is for; who opened it and when stands with the user.</p>
            <p><code id="link" class="strong">{{ $link }}</code></p>
            <div class="row-acts"><button type="button" class="act is-main" data-copy="@exactly($link)">Copy the
                    link</button></div>
        @endif
        <p class="apart"><a href="/ftp-users/{{ $user->id }}">Back to {{ $user->login }}</a></p>
    </section>
</x-page>
