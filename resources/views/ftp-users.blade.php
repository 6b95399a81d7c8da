@use('Cellarium\Core\Words\Count')
@use('App\Text\Amount')
@use('App\Text\When')
@use('App\FtpUsers\FtpUserView')
@use('App\FtpUsers\FtpUserTable')
@php($acts = $table->only !== 'ended' && $users->isNotEmpty())
<x-page title="Open FTP users" place="Accounts">
    <section class="sheet">
        <header class="head">
            <h1>{{ $table->only === 'ended' ? 'FTP users that ended' : 'Open FTP users' }}
                <small>{{ number_format($users->total()) }}{{ $table->only === 'ended'
                    ? ', the last first' : ', oldest first' }}</small>
            </h1>
            <div class="row-acts"><x-action to="/reach" method="GET">Who reaches what</x-action></div>
        </header>
        <form class="sieve" method="get" action="/ftp-users"><label class="is-sr-only" for="q">Login, client,
                purpose or owner</label><input class="entry is-wide" id="q" name="q" type="search"
                value="@exactly($table->words)" placeholder="Login, client, purpose, owner" autocomplete="off"><label
                class="is-sr-only" for="only">Only</label><select class="entry" id="only" name="only">
                @foreach (FtpUserTable::ONLY as $value => $words)
                    <option value="@exactly($value)" @selected($value === $table->only)>{{ $words }}</option>
                @endforeach
            </select>
            <button class="act">Show</button>
        </form>
        @if ($users->isEmpty())
            <p class="calm">
                {{ $table->words === '' && $table->only === ''
                    ? 'No FTP user is open. What is opened appears here until its refusal is proven.'
                        : 'No FTP user fits.' }}
            </p>
        @else
            <form method="post" action="/bulk" id="bulk">@csrf
                <x-table caption="FTP users" class="is-roomy">
                    <thead>
                        <tr>
                            @if ($acts)
                                <th scope="col" class="tick"><input type="checkbox" data-all="users"
                                        aria-label="All on this page"></th>
                            @endif
                            <th scope="col">FTP user</th>
                            <th scope="col">Reaches</th>
                            <th scope="col">Owner and purpose</th>
                            <th scope="col">Open since</th>
                            <th scope="col">Used</th>
                            <th scope="col">Closes</th>
                        </tr>
                    </thead>
                    <tbody>
                        @foreach ($users as $user)
                            @php([$word, $tone] = FtpUserView::stands($user))
                            <tr>
                                @if ($acts)
                                    <td class="tick"><input type="checkbox" name="users[]" value="@exactly($user->id)"
                                            aria-label="{{ $user->login }}"></td>
                                @endif
                                <td><x-band :client="$user->account->client" :height="22" /> <a
                                        href="/ftp-users/{{ $user->id }}"><x-path class="strong"
                                            :path="$user->login" /></a>
                                    @if ($word !== 'open')
                                        <x-tag :tone="$tone">{{ $word }}</x-tag>
                                    @endif
                                    <div class="soft">
                                        {{ $user->account->client->name }}, {{ $user->account->title() }}</div>
                                </td>
                                <td>@words($user->reach()->sentence())<div class="soft"><x-path :path="$user->directory"
                                    />
                                    </div>
                                </td>
                                <td>{{ $user->person?->shortName() ?? 'nobody named' }}<div class="soft">
                                        {{ $user->purpose }}</div>
                                </td>
                                <td class="when" data-label="open since">
                                    {{ $user->created_at->shown('j M Y') }}<div class="soft">
                                        {{ Amount::ago($user->created_at) }}</div>
                                </td>
                                <td class="when" data-label="used">
                                    {{ $user->used_at === null ? 'never'
                                        : Amount::ago($user->used_at) }}@if ($user->idleDays() > 0)
                                        <div
                                            class="{{ $user->idleDays() >= config('cellarium.idle_days')
                                                ? 'is-soon-text' : 'soft' }}">
                                            idle {{ Count::words($user->idleDays(), 'day') }}
                                        </div>
                                    @endif
                                </td>
                                <td data-label="closes">
                                    {{ $user->hasEnded() ? 'closed '.$user->closed_at?->shown('j M Y H:i')
                                    : $user->endsWords() }}
                                    @if ($user->isOverdue())
                                        <div><x-tag tone="now">past its time</x-tag></div>
                                    @endif
                                </td>
                            </tr>
                        @endforeach
                    </tbody>
                </x-table>
                @if ($acts)
                    <fieldset class="bulk">
                        <legend>With those ticked</legend>
                        <button class="act" name="kind" value="close">Close</button> <button class="act"
                            name="kind" value="renew">Renew the passwords</button>
                        <span class="inline"><label for="closes">Move the closing time to</label> <input
                                class="entry is-time" id="closes" name="closes" type="datetime-local"
                                value="@exactly(When::field(When::evening(7)))"> <button
                                    class="act" name="kind"
                                value="move">Move</button></span>
                        <p class="soft">Each of these shows first what it would do.</p>
                    </fieldset>
                @endif
            </form>
            <x-pages :of="$users" what="FTP users" />
        @endif
    </section>
</x-page>
