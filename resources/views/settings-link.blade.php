<x-page title="Settings for you">
    <section class="sheet hand-over is-narrow" aria-labelledby="yours">
        @if ($settings !== null)
            <h1 id="yours">Your FTP settings <small>shown this once, note them down now</small></h1>
            @include('parts.settings')
        @elseif (! $gone)
            <h1 id="yours">FTP settings wait for you</h1>
            <p>They are shown a single time. Open them when you can note them down.</p>
            <form method="post" action="/hand-over" class="stack-form" autocomplete="off">@csrf
                @foreach ($errors->all() as $message)
                    <p class="is-now-text" role="alert">{{ $message }}</p>
                @endforeach
                <div class="code-line"><label for="code">The end of your link, behind the “#”</label>
                    <input class="entry is-mono" id="code" name="code" required maxlength="200"
                        spellcheck="false" data-from-link>
                </div>
                <label for="by">Your name, for whoever sent you this</label>
                <input class="entry" id="by" name="by" value="@exactly(old('by'))" required maxlength="100"
                    autocomplete="name">
                <button class="act is-main" data-once>Show them now</button>
            </form>
        @else
            <h1 id="yours">Nothing to see here any more</h1>
            <p>This link was opened already, was withdrawn, or its time is over. Ask whoever sent it for another.</p>
        @endif
    </section>
</x-page>
