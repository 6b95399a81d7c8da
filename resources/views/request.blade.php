<x-page :title="$asked->kind->title()" place="Today">
    <x-slot:where><x-where :client="$asked->client"><b>{{ $asked->client->name }}</b>
            @if ($asked->site !== null)
                <i>›</i><x-link to="/sites/{{ $asked->site_id }}"><x-domain :name="$asked->site->domain" /></x-link>
            @endif
        </x-where></x-slot:where>
    <section class="sheet is-narrow" aria-labelledby="head">
        <h1 id="head">{{ $asked->kind->title() }} <small>by {{ $asked->person->name }},
                {{ $asked->created_at?->shown('j M Y H:i') }}</small></h1>
        <p class="notes">{{ $asked->words }}</p>
        @if ($asked->answered_at !== null)
            <h2 class="apart">Answered by {{ $asked->answeredBy?->name }}
                <small>{{ $asked->answered_at->shown('j M Y H:i') }}</small></h2>
            <p class="notes">{{ $asked->answer }}</p>
        @else
            <div class="row-acts">
                @if ($asked->site !== null && $asked->kind === \App\Models\ClientRequestKind::FtpUser)
                    <x-action method="GET" to="/accounts/{{ $asked->site->account_id }}/ftp-users/new?directory={{
                        urlencode($asked->site->document_root) }}">New FTP user</x-action>
                @elseif ($asked->site !== null)
                    <x-action method="GET" to="/deployments/new?site={{ $asked->site_id }}">Deploy</x-action>
                @endif
            </div>
            <form method="post" action="/requests/{{ $asked->id }}/answer" class="stack-form apart">
                @csrf
                @error('answer')
                    <p class="word is-trouble" role="alert">{{ $message }}</p>
                @enderror
                <label for="answer">Your answer, which {{ $asked->person->name }} reads on their first page</label>
                <textarea class="entry" id="answer" name="answer" rows="4" required
                    maxlength="2000">@exactly(old('answer'))</textarea>
                <button class="act is-main" data-once>Answer</button>
            </form>
        @endif
    </section>
</x-page>
