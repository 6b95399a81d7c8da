@use('Cellarium\Core\Words\Count')
@use('Cellarium\Core\Connection\Protocol')
@php($value = fn(string $field): string => $form->typed[$field])
<x-page :title="$account === null ? 'Add an account' : 'Change '.$account->title()" place="Accounts">
    @if ($account !== null)
        <x-slot:where><x-where :client="$account->client"><a
                    href="/accounts/{{ $account->id }}"><b>{{ $account->client->name }}</b></a><i>›</i><code>{{
                        $account->title() }}</code></x-where></x-slot:where>
    @endif
    <div class="two">
        <section class="sheet" aria-labelledby="form">
            <h1 id="form">{{ $account === null ? 'Add an account' : 'Change the account' }} <small>
                    @if ($account === null)
                        by hand,
                        <a href="#letter">from a letter</a>, or <a href="/accounts/import">from a list</a>
                    @else
                        empty password or key: stays as it is
                    @endif
                </small>
            </h1>
            @if ($form->wrong !== [])
                <p class="word is-trouble" role="alert">
                    {{ Count::choose(count($form->wrong), 'One thing is', count($form->wrong).' things are') }} not
                    right yet;
                    all that was typed is still here.</p>
            @endif
            <form method="post" action="{{ $account === null ? '/accounts' : "/accounts/$account->id" }}"
                class="pairs-form" autocomplete="off">
                @csrf
                <x-field for="client" label="Client" :form="$form">
                    <div class="side"><select class="entry" id="client" name="client">
                            <option value="">choose</option>
                            @foreach ($clients as $client)
                                <option value="@exactly($client->id)"
                                    @selected($value('client') === (string) $client->id)>{{ $client->name }}
                                </option>
                            @endforeach
                        </select>
                        <input class="entry" name="new_client" value="@exactly($value('new_client'))"
                            placeholder="or a new one"
                            aria-label="New client" maxlength="200">
                    </div>
                </x-field>
                <x-field for="host" label="Host">
                    <div class="side"><input class="entry is-mono" id="host" name="host"
                            value="@exactly($value('host'))" required spellcheck="false"
                            placeholder="ftp.host.example"><input
                            class="entry is-mono is-short" name="port" value="@exactly($value('port'))" id="port"
                            placeholder="port" aria-label="Port" inputmode="numeric"></div><x-field-note
                        :form="$form" field="host" /><x-field-note :form="$form" field="port" />
                </x-field>
                <x-field for="protocol" label="Protocol" :form="$form">
                    <select class="entry" id="protocol" name="protocol">
                        @foreach ([Protocol::FtpsExplicit, Protocol::Sftp, Protocol::FtpsImplicit,
                            Protocol::Ftp] as $protocol)
                            <option value="@exactly($protocol->value)"
                                @selected($value('protocol') === $protocol->value)>
                                {{ $protocol->label() }}{{ $protocol === Protocol::Ftp ? ', readable on the way' : '' }}
                            </option>
                        @endforeach
                    </select>
                    @if ($value('protocol') === Protocol::Ftp->value)
                        <p class="is-soon-text">{{ Protocol::Ftp->exposes() }} Try FTP over TLS first.</p>
                    @endif
                </x-field>
                <x-field for="login" label="Login" :form="$form">
                    <input class="entry is-mono" id="login" name="login" value="@exactly($value('login'))" required
                        spellcheck="false">
                </x-field>
                <x-field for="password" label="Password" :form="$form">
                    <div class="side"><input class="entry is-mono" id="password" name="password" type="password"
                            value="@exactly($value('password'))" spellcheck="false" autocomplete="new-password"><button
                            type="button" class="act is-quiet" data-reveal="password"
                            aria-pressed="false">Show</button></div>
                </x-field>
                <details class="wide" @if ($value('private_key') !== '' || isset($form->wrong['private_key'])) open
                    @endif>
                    <summary>Key for SFTP{{ $account?->key_kind ? ": $account->key_kind" : '' }}</summary>
                    @if ($account?->key_fingerprint)
                        <p class="soft">The account has a key: <code>{{ $account->key_fingerprint }}</code></p>
                    @endif
                    <label for="private_key" class="is-sr-only">Private key</label>
                    <textarea class="entry is-mono" id="private_key" name="private_key" rows="4" spellcheck="false"
                        placeholder="the whole file of the private key, Ed25519 or RSA"
                        >@exactly($value('private_key'))</textarea>
                    <input class="entry is-mono" name="passphrase" type="password"
                        value="@exactly($value('passphrase'))"
                        placeholder="its passphrase, if it has one" aria-label="Passphrase of the key"
                        autocomplete="off"><x-field-note :form="$form" field="private_key" />
                </details>
                @if ($account === null)
                    <x-field for="domain" label="Its site">
                        <div class="side"><input class="entry is-mono" id="domain" name="domain"
                                value="@exactly($value('domain'))" placeholder="site.example" spellcheck="false"><input
                                class="entry is-mono" name="document_root" value="@exactly($value('document_root'))"
                                id="document_root" placeholder="/htdocs" aria-label="Document root"
                                spellcheck="false"></div>
                        <p class="soft">more can be added later; where it is served from is proven after connecting
                        </p><x-field-note :form="$form" field="domain" /><x-field-note :form="$form"
                            field="document_root" />
                    </x-field>
                @endif
                <details class="wide" @if (
                    $value('address') .
                        $value('start_directory') .
                        $value('active_mode') .
                        $value('label') .
                        $value('tags') .
                        $value('notes') .
                        $value('company') .
                        $value('control_url') !==
                        '' || isset($form->wrong['control_token'])) open @endif>
                    <summary>More: label, tags, notes, address, start directory, FTP users</summary>
                    <div class="pairs-form">
                        <label for="label">Label</label><input class="entry" id="label" name="label"
                            value="@exactly($value('label'))" maxlength="200" placeholder="what you call it">
                        <label for="company">Provider</label><input class="entry" id="company" name="company"
                            value="@exactly($value('company'))" maxlength="200">
                        <label for="tags">Tags</label><input class="entry" id="tags" name="tags"
                            value="@exactly($value('tags'))" placeholder="with commas between">
                        <x-field for="address" label="IP address" :form="$form">
                            <input class="entry is-mono" id="address" name="address"
                            value="@exactly($value('address'))"
                                placeholder="only where the name does not lead there">
                        </x-field>
                        <x-field for="start_directory" label="Start directory" :form="$form">
                            <input class="entry is-mono" id="start_directory" name="start_directory"
                                value="@exactly($value('start_directory'))"
                                placeholder="where the login lands">
                        </x-field>
                        <span class="name">Data connections</span><label class="check"><input type="checkbox"
                                name="active_mode" value="1" @checked($value('active_mode') !== '')> opened by the
                                server
                            (active mode)</label>
                        <x-field for="control_url" label="Control service">
                            <input class="entry is-mono" id="control_url" name="control_url"
                                value="@exactly($value('control_url'))" placeholder="https://control.host.example"
                                spellcheck="false"><input class="entry is-mono" name="control_token" type="password"
                                value="@exactly($value('control_token'))"
                                placeholder="{{ $account?->control_token === null ? 'access token'
                                    : 'access token: stays as it is' }}"
                                aria-label="Access token" autocomplete="off">
                            <p class="soft">where the host makes FTP users itself; without it they are made by hand
                            </p><x-field-note :form="$form" field="control_url" /><x-field-note :form="$form"
                                field="control_token" />
                        </x-field>
                        <x-field for="login_form" label="FTP users">
                            @if ($account?->control_url === null)
                                <input class="entry is-mono" id="login_form" name="login_form"
                                    value="@exactly($value('login_form'))" placeholder="{name}@site.example"
                                    spellcheck="false">
                                <p class="soft">what this provider makes of the name of an FTP user, {name} standing
                                for it</p><x-field-note :form="$form" field="login_form" />@else<p
                                    class="soft" id="login_form">the host calls them
                                    <x-path :path="$account->rules()->form" /></p>
                            @endif
                            <div class="side"><select class="entry" name="ftp_protocol"
                                    aria-label="FTP users sign in by">
                                    <option value="">sign in as the account does</option>
                                    @foreach (Protocol::cases() as $protocol)
                                        <option value="@exactly($protocol->value)"
                                            @selected($value('ftp_protocol') === $protocol->value)>by
                                            {{ $protocol->label() }}</option>
                                    @endforeach
                                </select>
                                <input class="entry is-mono is-short" name="ftp_port"
                                    value="@exactly($value('ftp_port'))"
                                    placeholder="port" aria-label="Port of FTP users" inputmode="numeric">
                            </div><x-field-note :form="$form" field="ftp_port" />
                        </x-field>
                        <label for="notes">Notes</label>
                        <textarea class="entry" id="notes" name="notes" rows="3">@exactly($value('notes'))</textarea>
                    </div>
                </details>
                @php($seen = collect($rungs ?? [])->last()['identity'] ?? null)
                @if ($value('accepted') !== '' || ($rungs !== null && ! $held && $seen !== null))
                    <label class="check wide"><input type="checkbox" name="accepted"
                        value="@exactly($value('accepted') !== '' ? $value('accepted') : json_encode($seen))"
                            @checked($value('accepted') !== '')> I have compared the fingerprint with what the provider
                            tells:
                        accept this server</label>
                @endif
                <div class="row-acts"><button class="act is-main" name="act" value="keep"
                        data-once>{{ $account === null ? 'Add the account' : 'Save' }}</button> <button class="act"
                        name="act" value="try">Try once without saving</button>
                    @if ($account !== null)
                        <a class="act is-quiet" href="/accounts/{{ $account->id }}">Back</a>
                    @endif
                </div>
            </form>
            @if ($account !== null)
                <p class="apart"><a class="act" href="/removals/accounts/{{ $account->id }}">Remove this account …</a>
                    <span class="soft">nothing is removed at the host; what goes with it is shown first</span></p>
            @endif
            @if ($account?->control_url !== null)
                <form method="post" action="/accounts/{{ $account->id }}/renew-password" class="apart">
                    @csrf<button class="act" data-once>Renew the password at the host</button> <span
                        class="soft">makes a new one, sets it at the provider, and keeps it here once a sign-in with
                        it is proven</span></form>
            @endif
            @if ($rungs !== null)
                <div id="tried" role="status">
                    <h2>{{ $held ? 'It connects' : 'It does not connect' }} <small>tried once; nothing was saved</small>
                    </h2>@include('parts.rungs', ['remedies' => null])
                </div>
            @endif
        </section>
        @if ($account === null)
            <section class="sheet" aria-labelledby="letter">
                <h2 id="letter">From a welcome letter</h2>
                @if ($marked !== null)
                    @if ($accounts === [])
                        <p class="word is-trouble" role="alert">No account was found in this letter. It needs at
                            least a host or a login with its label; type the rest by hand.</p>
                    @endif
                    @if (count($accounts) > 1)
                        <p>{{ count($accounts) }} accounts stand in this letter; add one after the other.</p>
                        <div class="row-acts">
                            @foreach ($accounts as $number => $one)
                                <form method="post" action="/accounts/letter" class="act-form">@csrf<input
                                        type="hidden" name="letter" value="@exactly($letter)"><input
                                        type="hidden" name="number" value="@exactly($number)"><button
                                        class="act{{ $number === $chosen ? ' is-main' : '' }}"
                                        @if ($number === $chosen) aria-current="true"
                                        @endif>{{ $one->value(\Cellarium\Core\Letter\Fact::Login)
                                            ?? 'account '.($number + 1) }}</button>
                                </form>
                            @endforeach
                        </div>
                    @endif
                    @if ($accounts !== [] && $accounts[$chosen]->missing() !== [])
                        <p class="soft">Not found in it:
                            {{ collect($accounts[$chosen]->missing())->map(fn($fact) => $fact->value)->join(', ',
                                ' and ') }}.
                        </p>
                    @endif
                    @if ($undone !== [])
                        <p class="soft">What was pasted was made plain first: {{ implode('; ', $undone) }}.</p>
                    @endif
                    <pre class="letter" tabindex="0"
                        aria-label="The letter, with what was read from it">{{ $marked }}</pre>
                @endif
                <form method="post" action="/accounts/letter" class="stack-form" autocomplete="off">
                    @csrf
                    <label
                        for="letter-text">{{ $marked === null ? 'Paste the text of the letter or mail'
                            : 'Another letter' }}</label>
                    <textarea class="entry is-mono" id="letter-text" name="letter"
                        rows="{{ $marked === null ? 14 : 4 }}" required
                        spellcheck="false"></textarea>
                    <p class="soft">Host, port, protocol, login, password and directory are read out of it and put
                        into the form to be looked at. Nothing of the letter is saved.</p>
                    <button class="act" data-once>Read the letter</button>
                </form>
            </section>
        @endif
    </div>
</x-page>
