<x-page :title="$client->name" place="Accounts">
    <x-slot:where><x-where :client="$client"><b>{{ $client->name }}</b></x-where></x-slot:where>
    <div class="two">
        <section class="sheet" aria-labelledby="client">
            <h1 id="client">Client</h1>
            <form method="post" action="/clients/{{ $client->id }}" class="pairs-form">
                @csrf
                @foreach ($errors->all() as $message)
                    <p class="word is-trouble" role="alert">{{ $message }}</p>
                @endforeach
                <label for="name">Name</label><input class="entry" id="name" name="name"
                    value="@exactly(old('name', $client->name))" required maxlength="200">
                <x-field for="colour" label="Colour" class="side">
                    <input id="colour" name="colour" type="color"
                    value="@exactly(old('colour', $client->colour))"><span
                        class="soft">stands with the letters {{ $client->mark() }}, for those who do not see
                        colours</span>
                </x-field>
                <label for="group">Group</label><input class="entry" id="group" name="group"
                    value="@exactly(old('group', $client->group))" list="groups" maxlength="100"><datalist id="groups">
                    @foreach ($groups as $group)
                        <option>{{ $group }}</option>
                    @endforeach
                </datalist>
                <label for="notes">Notes</label>
                <textarea class="entry" id="notes" name="notes"
                    rows="4">@exactly(old('notes', $client->notes))</textarea>
                <div class="row-acts"><button class="act is-main" data-once>Save</button></div>
            </form>
        </section>
        <section class="sheet" aria-labelledby="accounts">
            <h2 id="accounts">Accounts</h2>
            <ul class="users">
                @foreach ($client->accounts as $account)
                    <li><a href="/accounts/{{ $account->id }}"><x-path class="strong" :path="$account->title()" /></a>
                        <p class="soft">{{ $account->login }} ·
                            {{ $account->sites->pluck('domain')->join(', ') ?: 'no site' }}</p>
                    </li>
                @endforeach
            </ul>
            <h2>Sheets</h2>
            <p class="soft">What changed, what it rests on, who had access: for the client, to print or by a link.</p>
            <x-action to="/sheets?client={{ $client->id }}" method="GET">Sheets</x-action>
            <h2>Remove this client</h2>
            <p class="soft">With its accounts and sites; nothing is removed at the hosts. What goes with it is shown
                first, and it can be undone for 30 days.</p>
            <x-action to="/removals/clients/{{ $client->id }}" method="GET">Remove …</x-action>
        </section>
    </div>
</x-page>
