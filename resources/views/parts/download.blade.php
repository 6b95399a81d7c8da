@use('App\Text\Amount')
<section class="sheet is-narrow" id="errand" data-begins="/downloads/{{ $errand->id }}">
    <h1>Download</h1>
    <p>{{ Amount::bytes($errand->result['size']) }} are on their way. Should it break off, resume it in your browser
        within the hour.</p>
    <div class="row-acts">
        <x-action :to="$errand->back" method="GET">Back to the files</x-action>
        <a href="/downloads/{{ $errand->id }}">Not started? Download</a>
    </div>
</section>
