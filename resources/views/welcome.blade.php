<x-page title="Choose your password">
    <section class="sheet sign-in">
        <h1>Choose your password</h1>
        <p>{{ \App\People\Passwords::MINIMUM_LENGTH }} characters or more. Three or four words that do not belong
            together are easy to keep in mind and hard to guess.</p>
        <form method="post" action="/welcome">
            @csrf
            @foreach ($errors->all() as $message)
                <p class="word is-trouble" role="alert">{{ $message }}</p>
            @endforeach
            <div class="code-line"><label for="code">The end of your link, behind the “#”</label>
                <input class="entry is-mono" id="code" name="code" value="@exactly(old('code'))" required
                    maxlength="200" spellcheck="false" autocomplete="off" data-from-link>
            </div>
            <label for="password">Password</label>
            <input class="entry" id="password" name="password" type="password" autocomplete="new-password" required
                minlength="{{ \App\People\Passwords::MINIMUM_LENGTH }}">
            <button type="button" class="link" data-reveal="password" aria-pressed="false">Show</button>
            <label for="password_confirmation">The same once more</label>
            <input class="entry" id="password_confirmation" name="password_confirmation" type="password"
                autocomplete="new-password" required>
            <button class="act is-main" data-once>Save the password</button>
        </form>
    </section>
</x-page>
