@use('App\Text\Amount')
<section class="sheet is-narrow" id="errand" data-begins="/downloads/{{ $errand->id }}">
    <h1>Download</h1>
    <p>{{ Amount::bytes($errand->result['size']) }} are on their way to you. Where the way breaks off, your browser can
        go on for an hour.</p>
    <div class="row-acts">
        <x-action :to="$errand->back" method="GET">Back to the files</x-action>
        <a href="/downloads/{{ $errand->id }}">It did not begin: download</a>
    </div>
</section>
