@use('Cellarium\Core\Words\Count')
@use('App\Text\Amount')
<x-page title="Your own settings">
    <header class="head">
        <h1>{{ $person->name }} <small>{{ $person->email }}, {{ $person->role->label() }}
                {{ $person->client === null ? '' : 'of '.$person->client->name }}</small></h1>
    </header>
    <div class="two">
        <div class="stack">
            <section class="sheet" aria-labelledby="look">
                <h2 id="look">How it looks to you</h2>
                <form method="post" action="/me" class="pairs-form">
                    @csrf
                    <label for="time_zone">Time zone</label>
                    <select class="entry" id="time_zone" name="time_zone">
                        <option value="">as Cellarium has it ({{ config('app.timezone') }})</option>
                        @foreach ($zones as $zone)
                            <option @selected($zone === $person->settings->timeZone)>{{ $zone }}</option>
                        @endforeach
                    </select>
                    <span class="name" id="clock">Times</span>
                    <div role="radiogroup" aria-labelledby="clock">
                        <label class="check"><input type="radio" name="clock" value="24"
                                @checked($person->settings->twentyFourHours)> 24 hours, 18:30</label>
                        <label class="check"><input type="radio" name="clock" value="12"
                                @checked(! $person->settings->twentyFourHours)> 12 hours, 6:30 pm</label>
                    </div>
                    <span class="name" id="scheme">Colours</span>
                    <div role="radiogroup" aria-labelledby="scheme">
                        @foreach (['system' => 'as the device has it', 'light' => 'light', 'dark' => 'dark']
                            as $scheme => $words)
                            <label class="check"><input type="radio" name="scheme" value="{{ $scheme }}"
                                    @checked($person->settings->scheme === $scheme)> {{ $words }}</label>
                        @endforeach
                    </div>
                    <span class="name" id="mail">By e-mail</span>
                    <div role="radiogroup" aria-labelledby="mail">
                        @foreach ($mails as $mail => $words)
                            <label class="check"><input type="radio" name="mail" value="{{ $mail }}"
                                    @checked($person->settings->mail === $mail)> {{ $words }}</label>
                        @endforeach
                        @if ($kinds !== [])
                            <div class="kinds">
                                @foreach ($kinds as $kind)
                                    <label class="check"><input type="checkbox" name="kinds[]"
                                            value="{{ $kind->value }}"
                                            @checked(in_array($kind->value, $person->settings->kinds, true))>
                                        {{ $kind->title() }}</label>
                                @endforeach
                            </div>
                        @endif
                    </div>
                    <div class="row-acts"><button class="act is-main" data-once>Save</button></div>
                </form>
            </section>
            <section class="sheet" aria-labelledby="sessions">
                <h2 id="sessions">Where you are signed in</h2>
                <x-table caption="Where you are signed in">
                    <thead>
                        <tr>
                            <th scope="col">With</th>
                            <th scope="col">From</th>
                            <th scope="col">Last seen</th>
                            <th scope="col"></th>
                        </tr>
                    </thead>
                    <tbody>
                        @foreach ($sessions->sessions as $session)
                            <tr>
                                <td>{{ $session->words() }}</td>
                                <td class="when" data-label="from">{{ $session->address }}</td>
                                <td class="when" data-label="last seen">{{ $session->isThis ? 'now, here'
                                    : Amount::ago($session->lastSeen) }}</td>
                                <td class="acts">
                                    @unless ($session->isThis)
                                        <form method="post" action="/me/sessions/end" class="act-form">@csrf<input
                                                type="hidden" name="which" value="{{ $session->name }}"><button
                                                class="act" data-once
                                                aria-label="End the session with {{ $session->words() }} from {{
                                                    $session->address }}">End</button></form>
                                    @endunless
                                </td>
                            </tr>
                        @endforeach
                    </tbody>
                </x-table>
                @if (count($sessions->sessions) > 1)
                    <form method="post" action="/me/sessions/end" class="row-acts">@csrf<input type="hidden"
                            name="which" value="others"><button class="act" data-once>End all others</button></form>
                @endif
                <p class="soft">A session ends by itself after {{ config('session.lifetime') }} minutes without use, and
                    {{ config('cellarium.session_hours') }} hours after signing in.</p>
            </section>
        </div>
        <div class="stack">
            <section class="sheet" aria-labelledby="factor">
                <h2 id="factor">Second factor
                    <x-tag :tone="$person->hasSecondFactor() ? 'proven' : ($needed ? 'now' : 'plain')">{{
                        $person->hasSecondFactor() ? 'on' : 'off' }}</x-tag></h2>
                @if ($person->hasSecondFactor())
                    <p>A code of your authenticator app is asked for beside the password.
                        {{ Count::words(count($person->recovery_codes), 'recovery code is',
                            'recovery codes are') }} left for when the app is lost.</p>
                    <div class="row-acts">
                        <x-action to="/me/recovery-codes">New recovery codes</x-action>
                        <x-action to="/me/second-factor" method="GET">Set up another</x-action>
                        @unless ($needed)
                            <x-action to="/me/second-factor/end">Turn it off</x-action>
                        @endunless
                    </div>
                @else
                    <p>With it, a password that was found out opens nothing: a code of an app on your phone is asked for
                        too.</p>
                    <div class="row-acts"><x-action to="/me/second-factor" method="GET" main>Set it up</x-action></div>
                @endif
            </section>
            @leads('/me/tokens')
                <section class="sheet" aria-labelledby="tokens-head">
                    <h2 id="tokens-head">Tokens for build pipelines</h2>
                    <p>With a token a pipeline delivers what it has built, in your name and nothing more.</p>
                    <div class="row-acts"><x-action to="/me/tokens" method="GET">Your tokens</x-action></div>
                </section>
            @endleads
            <section class="sheet" aria-labelledby="password-head">
                <h2 id="password-head">Password</h2>
                <form method="post" action="/me/password" class="stack-form">
                    @csrf
                    @error('password')
                        <p class="word is-trouble" role="alert">{{ $message }}</p>
                    @enderror
                    <label for="password">New password, {{ \App\People\Passwords::MINIMUM_LENGTH }} characters or
                        more</label>
                    <input class="entry" id="password" name="password" type="password" autocomplete="new-password"
                        required>
                    <label for="password_confirmation">The same once more</label>
                    <input class="entry" id="password_confirmation" name="password_confirmation" type="password"
                        autocomplete="new-password" required>
                    <p class="soft">You are signed out everywhere else.</p>
                    <button class="act" data-once>Change the password</button>
                </form>
            </section>
        </div>
    </div>
</x-page>
