{{-- As visitors got it; nothing in it runs. --}}
<figure class="as-visitors">
    <figcaption>As visitors get it now: <x-address :address="$change->proof['address']" /></figcaption>
    <iframe src="/file-changes/{{ $change->id }}/page" sandbox loading="lazy"
        title="The page as visitors get it"></iframe>
</figure>
