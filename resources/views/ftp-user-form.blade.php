@use('Cellarium\Core\Words\Count')
@use('App\Models\Closing')
@use('App\FtpUsers\NewFtpUserForm')
@use('App\Models\FtpUser')
@use('Cellarium\Core\Credential\PasswordKind')
@use('Cellarium\Core\Credential\PasswordMaker')
@php($value = fn(string $field): string => $form->typed[$field])
@php($rules = $account->rules())
<x-page title="New FTP user" place="Accounts">
    <x-slot:where>
        <x-where :client="$account->client"><a
                href="/accounts/{{ $account->id }}"><b>{{ $account->client->name }}</b></a><i>›</i><code>{{
                    $account->title() }}</code><i>›</i>new
            FTP user
            <x-slot:facts><span>{{ $form->mayForget() ? 'made by the control service'
                : 'made by hand at '.($account->company ?: 'the provider') }}</span></x-slot:facts>
        </x-where>
    </x-slot:where>
    <div class="two is-even">
        <section class="sheet" aria-labelledby="new-user">
            <h1 id="new-user">New FTP user</h1>
            @if ($form->wrong !== [])
                <p class="word is-trouble" role="alert">
                    {{ $form->wrong[''] ?? Count::choose(count($form->wrong), 'One thing is not right yet.',
                        count($form->wrong).' things are not right yet.') }}
                    All that was typed is still here.</p>
            @endif
            <form id="order" method="post" action="/accounts/{{ $account->id }}/ftp-users" class="pairs-form"
                autocomplete="off">
                @csrf
                <x-field for="name" label="Login">
                    <input class="entry is-mono" id="name" name="name" value="@exactly($value('name'))"
                        placeholder="north-build" required maxlength="100" autocomplete="off" spellcheck="false"
                        autocapitalize="off" hx-get="/accounts/{{ $account->id }}/login-check"
                        hx-trigger="input delay:200ms" hx-target="#login-check" hx-sync="this:replace">
                    <div id="login-check" aria-live="polite">@include('parts.login-check', [
                        'objection' => $form->wrong['name'] ?? null,
                        'full' => $rules->full($value('name') === '' ? '…' : $value('name')),
                        'typed' => $value('name') !== '',
                    ])</div>
                </x-field>
                <x-field for="directory" label="Directory">
                    <input class="entry is-mono" id="directory" name="directory" value="@exactly($value('directory'))"
                    required
                        maxlength="900" spellcheck="false" hx-get="/accounts/{{ $account->id }}/foresight"
                        hx-trigger="input delay:200ms" hx-target="#foresight" hx-include="#megabytes"
                        hx-sync="#foresight:replace"><x-field-note :form="$form" field="directory" />
                    @if (isset($form->wrong['directory']) || $value('makes_directory') !== '')
                        <label class="check"><input type="checkbox" name="makes_directory" value="1"
                                @checked($value('makes_directory') !== '')> Make this directory, I mean it</label>
                    @endif
                    @php($destinations = $account->sites->flatMap->destinations)
                    <div class="picks">
                        @foreach ($account->sites as $site)
                            <button type="button" class="pick" data-pick="@exactly($site->document_root)"
                                data-into="directory">⌂
                                {{ $site->domain }}</button>
                        @endforeach
                        @foreach ($destinations as $destination)
                            <button type="button" class="pick" data-pick="@exactly($destination->directory)"
                                data-into="directory">{{ $destination->name }}</button>
                        @endforeach
                    </div>
                    <details class="tree-pick">
                        <summary>Choose from the tree</summary>
                        <div id="tree" hx-get="/accounts/{{ $account->id }}/tree?at=/"
                            hx-trigger="toggle from:closest details once">
                            <p class="soft">Looking …</p>
                        </div>
                    </details>
                </x-field>
                <span class="name">Password</span>
                <div role="radiogroup" aria-label="Password">
                    <label class="check"><input type="radio" name="password_kind" value="readable"
                            @checked($value('password_kind') === 'readable')> <span>made, in groups to read out:
                            <code>xxxx-xxxx-xxxx-xxxx</code>, {{ PasswordMaker::bits() }} bits</span></label>
                    <label class="check"><input type="radio" name="password_kind" value="random"
                            @checked($value('password_kind') === 'random')> made, {{ PasswordKind::Random->length() }}
                            signs at random,
                        {{ PasswordMaker::bits(PasswordKind::Random) }} bits</label>
                    <label class="check"><input type="radio" name="password_kind" value="own"
                            @checked($value('password_kind') === NewFtpUserForm::OWN)> typed:</label>
                    <div class="own-word">
                        <div class="side"><input class="entry is-mono" id="password" name="password" type="password"
                                value="@exactly($value('password'))" maxlength="128" spellcheck="false"
                                autocomplete="new-password"
                                aria-label="Typed password" hx-post="/accounts/{{ $account->id }}/password-check"
                                hx-trigger="input delay:200ms" hx-target="#strength" hx-include="#order"
                                hx-sync="this:replace"><button type="button" class="act is-quiet"
                                data-reveal="password" aria-pressed="false">Show</button></div>
                        <div id="strength" aria-live="polite">@include('parts.strength',
                            ['bits' => null])</div><x-field-note
                            :form="$form" field="password" />
                    </div>
                </div>
                <x-field for="megabytes" label="Space, MB" :form="$form">
                    <input class="entry is-short" id="megabytes" name="megabytes" inputmode="numeric"
                        value="@exactly($value('megabytes'))" placeholder="no limit"
                        hx-get="/accounts/{{ $account->id }}/foresight" hx-trigger="input delay:300ms"
                        hx-target="#foresight" hx-include="#directory" hx-sync="#foresight:replace"> <span
                        class="soft">for outsiders a limit; empty for none</span>
                </x-field>
                @include('parts.ends', [
                    'ends' => $value('ends'),
                    'closes' => $value('closes'),
                    'reason' => $value('reason'),
                ])
                <label for="purpose">For</label>
                <input class="entry" id="purpose" name="purpose" value="@exactly($value('purpose'))"
                    placeholder="whom or which job" maxlength="200">
                @if ($rules->readOnly || $form->mayForget())
                    <span class="name">Also</span>
                    <div>
                        @if ($rules->readOnly)
                            <label class="check"><input type="checkbox" name="read_only" value="1"
                                    @checked($value('read_only') !== '')> may only read</label>
                        @endif
                        @if ($form->mayForget())
                            <label class="check"><input type="checkbox" name="forgets" value="1"
                                    @checked($value('forgets') !== '')> <span>forget its password here once it is handed
                                    over; from then on the host tells whether its reach still holds. One that closes
                                    with its job is used from here, so its password is kept, encrypted</span></label>
                        @endif
                    </div>
                @endif
                <div class="row-acts"><button class="act is-main"
                        data-once>{{ $form->mayForget() ? 'Create and prove' : 'Write the instruction sheet' }}</button>
                    <a class="act is-quiet" href="/accounts/{{ $account->id }}">Back</a></div>
            </form>
        </section>
        <section class="sheet is-sticky" aria-labelledby="would-reach">
            <h2 id="would-reach">What it would reach</h2>
            <div id="foresight" aria-live="polite">@include('parts.foresight')</div>
        </section>
    </div>
</x-page>
