@use('App\View\Amount')
<x-page title="Accounts" place="Accounts">
    <section class="sheet">
        <h1>Accounts <small>{{ $accounts->count() }} at {{ $accounts->pluck('company')->unique()->count() }} hosting companies</small></h1>
        <table class="facts-table is-roomy">
            <thead><tr><th>Client</th><th>Sites</th><th>Host and login</th><th>Connection</th><th>Space</th><th>FTP users open</th></tr></thead>
            <tbody>
                @foreach ($accounts as $account)
                    <tr>
                        <td><svg class="band" width="6" height="22" aria-hidden="true"><rect width="6" height="22" rx="2" fill="{{ $account->client->colour }}"/></svg> <a href="/accounts/{{ $account->id }}"><b>{{ $account->client->name }}</b></a></td>
                        <td>@foreach ($account->sites as $site)<div>{{ $site->domain }}@if ($site->placeholder) <x-tag tone="later">placeholder</x-tag>@elseif ($site->lastBackup === null) <x-tag tone="soon">no backup</x-tag>@endif</div>@endforeach</td>
                        <td class="whole"><code>{{ $account->host }}</code><br><code class="soft">{{ $account->login }}</code></td>
                        <td class="whole">@if ($account->reached_at !== null && $account->reached_at >= $account->tried_at)reached {{ Amount::ago($account->reached_at) }}@elseif ($account->tried_at === null)not tried yet@else<x-tag tone="now">does not connect</x-tag>@endif<br><span class="soft">{{ $account->protocol->label() }}</span></td>
                        <td>@if ($account->space_limit){{ Amount::bytes($account->space_used) }} of {{ Amount::bytes($account->space_limit) }}<svg class="meter" width="120" height="6" viewBox="0 0 120 6" aria-hidden="true"><rect class="all" width="120" height="6" rx="3"/><rect class="part" width="{{ max(2, round(120 * min(1, $account->space_used / $account->space_limit), 1)) }}" height="6" rx="3"/></svg>@else not known @endif</td>
                        <td>@forelse ($account->ftpUsers as $user)<div><code>{{ $user->shortLogin() }}</code> @if ($user->isOverdue())<x-tag tone="now">past its date</x-tag>@else<span class="soft">until {{ $user->closes_at?->format('j M H:i') }}</span>@endif</div>@empty<span class="soft">none</span>@endforelse</td>
                    </tr>
                @endforeach
            </tbody>
        </table>
    </section>
</x-page>
