<x-page :title="$site->exists ? $site->domain : 'A site of '.$account->title()" place="Accounts">
    <x-slot:where>
        @if ($site->exists)
            <x-site-where :site="$site" here="settings">
                <x-slot:facts><span>{{ $site->root_proven_at === null ? 'document root not proven'
                    : 'document root proven '.$site->root_proven_at->shown('j M H:i') }}</span></x-slot:facts>
            </x-site-where>
        @else
            <x-where :client="$account->client">
                <b>{{ $account->client->name }}</b><i>›</i>
                <a href="/accounts/{{ $account->id }}"><x-path :path="$account->title()" /></a><i>›</i>
                <span>new site</span>
            </x-where>
        @endif
    </x-slot:where>
    <div class="two">
        <section class="sheet" aria-labelledby="site">
            <h1 id="site">{{ $site->exists ? 'Settings' : 'Another site of this account' }}</h1>
            <form method="post" action="{{ $site->exists ? "/sites/$site->id" : "/accounts/$account->id/sites" }}"
                class="pairs-form">
                @csrf
                @foreach ($errors->all() as $message)
                    <p class="word is-trouble" role="alert">{{ $message }}</p>
                @endforeach
                <label for="domain">Domain</label>
                <input class="entry is-mono" id="domain" name="domain" value="@exactly(old('domain', $site->domain))"
                    required
                    autocomplete="off" spellcheck="false">
                <label for="base_url">Address</label>
                <input class="entry is-mono" id="base_url" name="base_url"
                    value="@exactly(old('base_url', $site->base_url))"
                    placeholder="https:// and the domain" autocomplete="off" spellcheck="false">
                <label for="document_root">Document root</label>
                <input class="entry is-mono" id="document_root" name="document_root"
                    value="@exactly(old('document_root', $site->document_root))" required
                    spellcheck="false">
                <x-field for="application_root" label="Application">
                    <input class="entry is-mono" id="application_root" name="application_root"
                        value="@exactly(old('application_root', $site->application_root))" spellcheck="false">
                    <p class="soft">the directory above, where an application begins whose public folder is the
                        document root; it is compared and backed up as a whole</p>
                </x-field>
                <x-field for="start_pages" label="Start pages">
                    <input class="entry is-mono" id="start_pages" name="start_pages"
                    value="@exactly(old('start_pages', implode(', ', $site->start_pages)))" required
                        spellcheck="false">
                    <p class="soft">the first that exists is shown</p>
                </x-field>
                <x-field for="proof_decides" label="After a failed proof">
                    <input class="entry" id="proof_decides" name="proof_decides" type="number" min="1" max="240"
                        value="@exactly(old('proof_decides', $site->proof_decides))">
                    <p class="soft">minutes in which a person may prove again before the old site is put back; left
                        empty, it is put back at once</p>
                </x-field>
                <x-field for="aliases" label="Other names">
                    <textarea class="entry is-mono" id="aliases" name="aliases" rows="2" spellcheck="false"
                        placeholder="www.site.example">@exactly(old('aliases', implode("\n",
                            $site->aliases)))</textarea>
                    <p class="soft">domains that show the same site, one a line</p>
                </x-field>
                <x-field for="mounts" label="Mounted below">
                    <textarea class="entry is-mono" id="mounts" name="mounts" rows="2" spellcheck="false"
                        placeholder="/journal /apps/journal">@exactly(old('mounts',
                            collect($site->mounts)->map(fn($mount) =>
                                "{$mount['path']} {$mount['directory']}")->join("\n")))</textarea>
                    <p class="soft">directories from elsewhere that answer below the site: address and directory, one
                        pair a line</p>
                </x-field>
                <label for="client">Whose site</label>
                <select class="entry" id="client" name="client">
                    <option value="">{{ $account->client->name }}, as the account</option>
                    @foreach ($clients as $client)
                        <option value="@exactly($client->id)"
                            @selected((string) old('client',
                                (string) $site->client_id) === (string) $client->id)>{{ $client->name }}</option>
                    @endforeach
                </select>
                <span class="name" id="shows">Files</span>
                <div><label class="check"><input type="checkbox" name="shows_files" value="1"
                            aria-describedby="shows-note" @checked(old('shows_files', $site->shows_files))> its
                        client’s people may look at them</label>
                    <p class="soft" id="shows-note">at names, permissions, addresses and pictures; they change nothing,
                        and never see what another client has in the same place</p>
                </div>
                <label for="notes">Notes</label>
                <textarea class="entry" id="notes" name="notes" rows="3">@exactly(old('notes', $site->notes))</textarea>
                <div class="row-acts"><button class="act is-main"
                        data-once>{{ $site->exists ? 'Save' : 'Add the site' }}</button>
                    <a class="act"
                        href="{{ $site->exists ? "/sites/$site->id" : "/accounts/$account->id" }}">Cancel</a></div>
            </form>
        </section>
        @if ($site->exists)
            <div class="stack">
                <section class="sheet" aria-labelledby="candidates">
                    <h2 id="candidates">Where it is served from <small>likely directories, and why</small></h2>
                    @if ($site->candidates === null)
                        <p class="calm">Not looked for yet.</p>
                    @elseif ($site->candidates === [])
                        <p class="calm">No directory looks like a document root.</p>
                    @endif
                    <ol class="candidates">
                        @foreach ($site->candidates ?? [] as $index => $candidate)
                            <li>
                                <div><x-path class="strong" :path="$candidate['directory']" />
                                    @if ($candidate['directory'] === $site->document_root)
                                        <x-tag :tone="$site->root_proven_at ? 'proven' : 'plain'">{{
                                            $site->root_proven_at ? 'proven' : 'set' }}</x-tag>
                                    @elseif ($index === 0)
                                        <x-tag tone="soon">likeliest</x-tag>
                                    @endif
                                    <p class="soft">{{ implode('; ', $candidate['reasons']) }}</p>
                                </div>
                                <form method="post" action="/sites/{{ $site->id }}/prove-root" class="act-form">
                                    @csrf<input type="hidden" name="directory"
                                        value="@exactly($candidate['directory'])"><button
                                        class="act{{ $index === 0 && ! $site->root_proven_at ? ' is-main' : '' }}"
                                        data-once aria-label="Prove it: {{ $candidate['directory'] }}">Prove
                                        it</button></form>
                            </li>
                        @endforeach
                    </ol>
                    <x-action
                        to="/sites/{{ $site->id }}/find-root">{{ $site->candidates === null ? 'Look for it'
                            : 'Look again' }}</x-action>
                    <p class="soft apart">Proving puts a small file with a random name there, asks for it through the
                        domain, and removes it.</p>
                </section>
                <section class="sheet" aria-labelledby="destinations">
                    <h2 id="destinations">Destinations <small>directories that have a name here</small></h2>
                    @if ($site->destinations->isEmpty())
                        <p class="calm">None yet. What is saved here can be chosen wherever a directory is asked for.
                        </p>
                    @endif
                    <ul class="users">
                        @foreach ($site->destinations as $destination)
                            <li class="user-head"><span><b>{{ $destination->name }}</b>
                                    <x-path :path="$destination->directory" /></span>
                                <form method="post" action="/destinations/{{ $destination->id }}/remove"
                                    class="act-form">@csrf<button class="link" data-once
                                        aria-label="remove {{ $destination->name }}">remove</button></form>
                            </li>
                        @endforeach
                    </ul>
                    <form method="post" action="/sites/{{ $site->id }}/destinations" class="pairs-form apart">
                        @csrf
                        <label for="destination-name">Name</label><input class="entry" id="destination-name"
                            name="name" required maxlength="60" placeholder="pictures">
                        <label for="destination-directory">Directory</label><input class="entry is-mono"
                            id="destination-directory" name="directory" required maxlength="900"
                            value="@exactly(rtrim($site->document_root, '/').'/')" spellcheck="false">
                        <div class="row-acts"><button class="act" data-once>Save</button></div>
                    </form>
                </section>
                <section class="sheet" aria-labelledby="remove">
                    <h2 id="remove">Remove this site</h2>
                    <p class="soft">Cellarium no longer looks after it; nothing is removed at the host. What goes with
                        it
                        is shown first, and it can be undone for 30 days.</p>
                    <x-action to="/removals/sites/{{ $site->id }}" method="GET">Remove …</x-action>
                </section>
            </div>
        @endif
    </div>
</x-page>
