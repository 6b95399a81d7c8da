<x-page title="Second factor">
    <section class="sheet is-narrow" aria-labelledby="head">
        <h1 id="head">Set up the second factor</h1>
        <ol class="to-do">
            <li>Open an authenticator app on your phone, any that shows codes for signing in, and add an account by
                scanning this.
                <div class="qr" data-qr="@exactly($uri)" role="img" aria-label="QR code of the key below"></div>
                <p class="soft">Without a camera: type this key, “time-based”, 6 digits.</p>
                <p><code>{{ $key }}</code> <button type="button" class="link"
                        data-copy="@exactly(str_replace(' ', '', $key))" aria-label="copy the key">copy</button></p>
            </li>
            <li>Type the code it shows now.
                <form method="post" action="/me/second-factor" class="stack-form">
                    @csrf
                    @error('code')
                        <p class="word is-trouble" role="alert">{{ $message }}</p>
                    @enderror
                    <label for="code" class="is-sr-only">Code</label>
                    <input class="entry is-mono is-short" id="code" name="code" inputmode="numeric"
                        autocomplete="one-time-code" maxlength="10" required spellcheck="false">
                    <button class="act is-main" data-once>Turn it on</button>
                </form>
            </li>
        </ol>
        @unless (\App\People\SecondFactor::isMissing($person))
            <p><a href="/me">Back to your settings</a></p>
        @endunless
    </section>
    <x-slot:scripts>
        <script src="/js/qr.js" type="module"></script>
    </x-slot:scripts>
</x-page>
