<x-page title="Second factor">
    <section class="sheet sign-in">
        <h1>Second factor</h1>
        <p>Your password is right. Now the code that your authenticator app shows for Cellarium.</p>
        <form method="post" action="/sign-in/code">
            @csrf
            @error('code')
                <p class="word is-trouble" role="alert">{{ $message }}</p>
            @enderror
            <label for="code">Code</label>
            <input class="entry is-mono" id="code" name="code" inputmode="numeric" autocomplete="one-time-code"
                maxlength="40" required autofocus spellcheck="false">
            <button class="act is-main">Sign in</button>
        </form>
        <details>
            <summary>The device with the app is lost</summary>
            <p>Type one of the recovery codes you noted down when you set it up; each works once. Without these, ask a
                maintainer to take the second factor off.</p>
        </details>
        <p><a href="/sign-in">Begin again</a></p>
    </section>
</x-page>
