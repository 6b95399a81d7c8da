<x-page title="Show that it is you">
    <section class="sheet sign-in">
        <h1>Show that it is you</h1>
        <p>Passwords, people and removals ask for this when you signed in more than
            {{ \App\People\SessionBond::FRESH_MINUTES }} minutes ago.</p>
        <form method="post" action="/sign-in/again">
            @csrf
            @error('password')
                <p class="word is-trouble" role="alert">{{ $message }}</p>
            @enderror
            <input type="hidden" name="username" value="@exactly($person->email)" autocomplete="username">
            <label for="password">Password of {{ $person->email }}</label>
            <input class="entry" id="password" name="password" type="password" autocomplete="current-password" required
                autofocus>
            @if ($person->hasSecondFactor())
                <label for="code">Code of your app, or a recovery code</label>
                <input class="entry is-mono" id="code" name="code" inputmode="numeric" autocomplete="one-time-code"
                    maxlength="40" required spellcheck="false">
            @endif
            <button class="act is-main">Go on</button>
        </form>
    </section>
</x-page>
