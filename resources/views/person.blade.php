@use('Cellarium\Core\People\Role')
@use('App\Models\OneTimeLink')
@php($typed = fn (string $field, mixed $known): string => (string) old($field, $known))
<x-page :title="$person->exists ? $person->name : 'Invite somebody'" place="People">
    <div class="two">
        <section class="sheet" aria-labelledby="head">
            <h1 id="head">{{ $person->exists ? $person->name : 'Invite somebody' }}
                @if ($person->isClosed())
                    <x-tag tone="kept">closed {{ $person->closed_at->shown('j M Y H:i') }}</x-tag>
                @endif
            </h1>
            @foreach ($errors->all() as $message)
                <p class="word is-trouble" role="alert">{{ $message }}</p>
            @endforeach
            <form method="post" action="{{ $person->exists ? "/people/$person->id" : '/people' }}" class="pairs-form"
                autocomplete="off">
                @csrf
                <input type="hidden" name="revision" value="{{ $person->revision }}">
                <label for="name">Name</label>
                <input class="entry" id="name" name="name" value="@exactly($typed('name', $person->name))" required
                    maxlength="100">
                <label for="email">E-mail address</label>
                <input class="entry" id="email" name="email" type="email"
                    value="@exactly($typed('email', $person->email))" required maxlength="200">
                <span class="name" id="role">Role</span>
                <div role="radiogroup" aria-labelledby="role">
                    @foreach (Role::cases() as $role)
                        <label class="check"><input type="radio" name="role" value="{{ $role->value }}"
                                @checked($typed('role', $person->role->value) === $role->value)>
                            <span><b>{{ $role->label() }}</b> <span class="soft">{{ $role->words() }}</span></span>
                        </label>
                    @endforeach
                </div>
                <x-field for="client_id" label="Client">
                    <select class="entry" id="client_id" name="client_id">
                    <option value="">none</option>
                    @foreach ($clients as $client)
                        <option value="{{ $client->id }}"
                            @selected($typed('client_id', $person->client_id) === (string) $client->id)>{{
                                $client->name }}</option>
                    @endforeach
                </select>
                <span class="soft">only for a client’s person, who sees nothing but this client’s</span>
                <label class="check"><input type="checkbox" name="may_fetch_backups" value="1"
                        @checked($typed('may_fetch_backups', $person->may_fetch_backups ? '1' : '') === '1')> may
                    download backups as zip</label>
                </x-field>
                <div class="row-acts">
                    <button class="act is-main" data-once>{{ $person->exists ? 'Save' : 'Make the link' }}</button>
                    <a class="act" href="/people">Cancel</a>
                </div>
            </form>
        </section>
        @if ($person->exists)
            <section class="sheet" aria-labelledby="signs">
                <h2 id="signs">How they sign in</h2>
                <dl class="pairs">
                    <dt>Password</dt>
                    <dd>
                        @if ($waits !== null)
                            a link waits for them until {{ $waits->expires_at->shown('j M H:i') }}
                        @else
                            {{ $person->isInvited() ? 'none, and the link ran out: renew it' : 'chosen by themselves' }}
                        @endif
                    </dd>
                    <dt>Second factor</dt>
                    <dd>{{ $person->hasSecondFactor() ? 'on, '.count($person->recovery_codes).' recovery codes left'
                        : 'none' }}</dd>
                    <dt>Signed in</dt>
                    <dd>{{ match ($sessions) {
                        0 => 'nowhere just now',
                        1 => 'in 1 place',
                        default => "in $sessions places",
                    } }}</dd>
                </dl>
                @foreach ([
                    'renew-password' => [
                        $person->isInvited() ? 'Make another link' : 'Renew the password',
                        'The old password stops working now; a link is shown once, for you to pass on.',
                        ! $person->isClosed(),
                    ],
                    'drop-second-factor' => [
                        'Take the second factor off',
                        'For a lost phone. First make sure that it is really them who ask.',
                        $person->hasSecondFactor(),
                    ],
                    'close' => [
                        "Close {$person->name}",
                        'Signed out everywhere at once. What they did stays theirs in the record; what is at work in '
                            .'their name goes on.',
                        ! $person->isClosed(),
                    ],
                    'open' => ["Open {$person->name} again", 'With the password they had.', $person->isClosed()],
                ] as $act => [$label, $words, $offered])
                    @if ($offered)
                        <form method="post" action="/people/{{ $person->id }}/{{ $act }}" class="apart">
                            @csrf<input type="hidden" name="revision" value="{{ $person->revision }}">
                            <p class="soft">{{ $words }}</p>
                            <div class="row-acts"><button class="act" data-once>{{ $label }}</button></div>
                        </form>
                    @endif
                @endforeach
            </section>
        @else
            <section class="sheet" aria-labelledby="next">
                <h2 id="next">What happens next</h2>
                <p>You get a link, shown once, that works for {{ \App\People\People::LINK_HOURS }} hours. Pass it on;
                    by it they choose their password. Until then nobody can sign in with this address.</p>
            </section>
        @endif
    </div>
</x-page>
