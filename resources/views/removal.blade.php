@use('App\Http\Controllers\RemovalController')
@use('App\Models\RemovableKind')
@use('App\Removal\Removal')
@use('App\Text\Amount')
<x-page :title="'Remove '.$name" place="Accounts">
    <x-slot:where>
        <x-where :client="$client"><b>{{ $client->name }}</b><i>›</i><b><x-domain :name="$name" /></b></x-where>
    </x-slot:where>
    <form method="post" action="/removals/{{ $kind->value }}/{{ $subject->id }}" class="two">
        @csrf
        <section class="sheet" aria-labelledby="remove">
            <h1 id="remove">Remove {{ $name }} from Cellarium</h1>
            <p>Nothing is removed at the host: its files stay where they are, and visitors see what they see now.
                Cellarium no longer looks after it. This can be undone for {{ Removal::DAYS }} days; then the passwords
                and keys stored here are erased. The record stays for ever.</p>
            @if ($goes->objection() !== null)
                <p class="word is-trouble" role="alert">{{ $goes->objection() }}</p>
            @endif
            @if ($goes->openUsers->isNotEmpty())
                <h2 class="apart">FTP users that can still sign in</h2>
                <p class="soft">Closing is proven by a refused sign-in; nothing is removed before it is.</p>
                <x-table caption="FTP users that can still sign in">
                    <thead>
                        <tr>
                            <th scope="col">Login</th>
                            <th scope="col">Lands in</th>
                            <th scope="col">Closes</th>
                            <th scope="col">What becomes of it</th>
                        </tr>
                    </thead>
                    <tbody>
                        @foreach ($goes->openUsers as $user)
                            <tr>
                                <td><a href="/ftp-users/{{ $user->id }}"><x-path :path="$user->login" /></a></td>
                                <td data-label="lands in"><x-path :path="$user->directory" /></td>
                                <td data-label="closes">{{ $user->endsWords() }}</td>
                                <td class="when">
                                    <div role="radiogroup" aria-label="What becomes of {{ $user->login }}">
                                        <label class="check"><input type="radio" name="users[{{ $user->id }}]"
                                                value="close" checked> close it first</label>
                                        <label class="check"><input type="radio" name="users[{{ $user->id }}]"
                                                value="leave"> leave it open</label>
                                    </div>
                                </td>
                            </tr>
                        @endforeach
                    </tbody>
                </x-table>
            @else
                <p class="calm">No FTP user is open there.</p>
            @endif
            <div class="pairs-form below">
                <label for="keep">Backups stay</label>
                <select class="entry" id="keep" name="keep">
                    @foreach (RemovalController::KEEP as $days => $words)
                        <option value="{{ $days }}" @selected($days === 365)>{{ $words }}</option>
                    @endforeach
                </select>
            </div>
            <div class="row-acts">
                <button class="act is-main" data-once @disabled($goes->objection() !== null)>Remove the
                    {{ $kind->noun() }}</button>
                <a class="act" href="{{ match ($kind) {
                    RemovableKind::Client => "/clients/$subject->id",
                    RemovableKind::Account => "/accounts/$subject->id",
                    RemovableKind::Site => "/sites/$subject->id",
                } }}">Cancel</a>
            </div>
        </section>
        <section class="sheet" aria-labelledby="goes">
            <h2 id="goes">What goes with it</h2>
            <dl class="pairs">
                @if ($goes->accounts->isNotEmpty() && $kind === RemovableKind::Client)
                    <dt>Accounts</dt>
                    <dd>
                        @foreach ($goes->accounts as $account)
                            <div><a href="/accounts/{{ $account->id }}"><x-path :path="$account->title()" /></a></div>
                        @endforeach
                    </dd>
                @endif
                @if ($kind !== RemovableKind::Site)
                    <dt>Sites</dt>
                    <dd>
                        @forelse ($goes->sites as $site)
                            <div><a href="/sites/{{ $site->id }}"><x-domain :name="$site->domain" /></a></div>
                        @empty
                            none
                        @endforelse
                    </dd>
                @endif
                <dt>Backups</dt>
                <dd>{{ $goes->backups }}, {{ Amount::bytes($goes->backupBytes) }} in all</dd>
                <dt>Set aside</dt>
                <dd>{{ Amount::files($goes->setAside) }} that could be restored</dd>
            </dl>
        </section>
    </form>
</x-page>
