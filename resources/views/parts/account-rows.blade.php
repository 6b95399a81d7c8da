@use('App\Accounts\AccountTable')
@use('App\Text\Amount')
<div id="accounts">
    @if ($accounts->isEmpty())
        <p class="calm">
            {{ $counts[1] === 0 ? 'No account is known yet. Add one, or import a list.' : 'No account fits.' }}
        </p>
    @else
        <x-table caption="Accounts" class="is-roomy">
            <thead>
                <tr>
                    @foreach (array_diff_key(AccountTable::ORDERS, ['used' => '']) as $order => $words)
                        @php($is = ($table->get('sort') ?: 'client') === $order)
                        <th scope="col"
                            @if ($is) aria-sort="{{ $table->get('down') ? 'descending' : 'ascending' }}" @endif>
                            <a href="{{ $table->url('sort', $order) }}">{{ $words }}
                                @if ($is)
                                    {{ $table->get('down') ? '↓' : '↑' }}
                                @endif
                            </a>
                        </th>
                    @endforeach
                    <th scope="col">
                        <span class="is-sr-only">Action</span>
                    </th>
                </tr>
            </thead>
            <tbody>
                @foreach ($accounts as $account)
                    <tr>
                        <td><x-band :client="$account->client" :height="22" /> <a
                                href="/accounts/{{ $account->id }}"><b>{{ $account->client->name }}</b></a>
                            @if ($account->label !== '')
                                <div class="soft">{{ $account->label }}</div>
                            @endif
                            @if ($account->tags !== [])
                                <div>
                                    @foreach ($account->tags as $tag)
                                        <a class="tag-link" href="{{ $table->url('tag', $tag) }}">{{ $tag }}</a>
                                    @endforeach
                                </div>
                            @endif
                        </td>
                        <td>
                            @foreach ($account->sites->take(4) as $site)
                                <div><a href="/sites/{{ $site->id }}"><x-domain :name="$site->domain" /></a>
                                    @if ($site->placeholder)
                                        <x-tag tone="later">placeholder</x-tag>
                                    @elseif ($site->last_backup_at === null)
                                        <x-tag tone="soon">no backup</x-tag>
                                    @endif
                                </div>
                            @endforeach
                            @if ($account->sites->count() > 4)
                                <div class="soft">and {{ $account->sites->count() - 4 }} more</div>
                            @elseif ($account->sites->isEmpty())
                                <span class="soft">none yet</span>
                            @endif
                        </td>
                        <td class="whole"><x-path :path="$account->host" /><br><code
                                class="soft">{{ $account->login }}</code></td>
                        <td class="whole">
                            @if ($account->doesNotConnect())
                                <x-tag tone="now">does not connect</x-tag>
                            @elseif ($account->tried_at === null)
                                <span class="soft">not tried yet</span>
                            @else
                                <span>reached {{ Amount::ago($account->reached_at) }}</span>
                            @endif
                            <br>
                            <span class="soft">{{ $account->protocol->label() }}</span>
                        </td>
                        <td>
                            @if ($account->space_limit)
                                <span class="unbroken">{{ Amount::bytes($account->space_used) }} of
                                    {{ Amount::bytes($account->space_limit) }}</span><svg class="meter" width="120"
                                    height="6" viewBox="0 0 120 6" aria-hidden="true">
                                    <rect class="all" width="120" height="6" rx="3" />
                                    <rect class="part"
                                        width="{{ max(2, round(120 * min(1, $account->space_used /
                                            $account->space_limit), 1)) }}"
                                        height="6" rx="3" />
                                </svg>
                            @else
                                <span class="soft">not known</span>
                            @endif
                        </td>
                        <td>
                            @forelse ($account->ftpUsers as $user)
                                <div><x-path :path="$user->shortLogin()" />
                                    @if ($user->isOverdue())
                                        <x-tag tone="now">past its date</x-tag>
                                    @elseif ($user->closes_at === null)
                                        <span class="soft">{{ $user->endsWords() }}</span>
                                    @else
                                        <span class="soft unbroken">until
                                            {{ $user->closes_at->shown('j M H:i') }}</span>
                                    @endif
                                </div>
                            @empty<span class="soft">none</span>
                            @endforelse
                        </td>
                        <td class="acts"><x-action to="/accounts/{{ $account->id }}/connect"
                                aria-label="Connect to {{ $account->login }} at {{ $account->host }}">Connect</x-action>
                        </td>
                    </tr>
                @endforeach
            </tbody>
        </x-table>
        <x-pages :of="$accounts" what="accounts" />
    @endif
</div>
