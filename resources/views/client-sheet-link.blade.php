<x-page title="Your sheet">
    <section class="sheet hand-over is-narrow" aria-labelledby="yours">
        @if ($isGone)
            <h1 id="yours">Nothing to see here any more</h1>
            <p>This link was withdrawn, its time is over, or it is not whole. Open it once more from where you have it,
                or ask whoever sent it for another.</p>
        @else
            <h1 id="yours">A sheet waits for you</h1>
            <p>What was changed on your sites, what it rests on, and who had access.</p>
            <form method="post" action="/client-sheet" class="stack-form" autocomplete="off" data-send-from-link>@csrf
                @foreach ($errors->all() as $message)
                    <p class="is-now-text" role="alert">{{ $message }}</p>
                @endforeach
                <div class="code-line"><label for="code">The end of your link, behind the “#”</label>
                    <input class="entry is-mono" id="code" name="code" required maxlength="200" spellcheck="false"
                        data-from-link>
                </div>
                <button class="act is-main" data-once>Open it</button>
            </form>
        @endif
    </section>
</x-page>
