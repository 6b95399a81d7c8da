<x-page title="Export the list" place="Accounts">
    <div class="two">
        <section class="sheet">
            <h1>Without secrets</h1>
            <p>All accounts and sites as comma-separated values; no passwords and keys. It can be imported again where
                the accounts are known.</p>
            <form method="post" action="/accounts/export" class="row-acts">@csrf<button class="act is-main">Export the
                    list</button></form>
        </section>
        @leads('/accounts/export-secrets', 'POST')
        <section class="sheet">
            <h2>With passwords</h2>
            <p class="soft">In a zip file encrypted with AES-256. Whoever has file and passphrase has every account;
                private keys are never exported.</p>
            <form method="post" action="/accounts/export-secrets" class="pairs-form" autocomplete="off">
                @csrf
                <label for="passphrase">Passphrase for the file</label><input class="entry" id="passphrase"
                    name="passphrase" type="password" required autocomplete="new-password">
                <label for="passphrase_again">The same again</label><input class="entry" id="passphrase_again"
                    name="passphrase_again" type="password" required autocomplete="new-password">
                <div class="row-acts"><button class="act">Export with passwords</button></div>
            </form>
        </section>
        @endleads
    </div>
</x-page>
