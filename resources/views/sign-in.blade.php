<x-page title="Sign in">
    <section class="sheet sign-in">
        <svg viewBox="0 0 24 26" width="44" height="48" aria-hidden="true">
            <path d="M1.5 25V11a10.5 9.5 0 0 1 21 0v14" fill="none" stroke="#d9a441" stroke-width="2.6" />
            <path d="M7.5 25V15a4.5 4 0 0 1 9 0v10z" fill="#d9a441" />
        </svg>
        <h1>Cellarium</h1>
        <form method="post" action="/sign-in">
            @csrf
            @error('email')
                <p class="word is-trouble" role="alert">{{ $message }}</p>
            @enderror
            <label for="email">Address</label>
            <input class="entry" id="email" name="email" type="email" value="@exactly(old('email'))"
                autocomplete="username" required autofocus>
            <label for="password">Password</label>
            <input class="entry" id="password" name="password" type="password" autocomplete="current-password"
                required>
            <button type="button" class="link" data-reveal="password" aria-pressed="false">Show</button>
            <button class="act is-main">Sign in</button>
        </form>
    </section>
</x-page>
