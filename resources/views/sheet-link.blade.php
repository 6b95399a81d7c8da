@use('Cellarium\Core\Words\Count')
<x-page title="A link to the sheet" place="Accounts">
    <x-slot:where><x-where :client="$sheet->client"><a
                href="/sheets?client={{ $sheet->client_id }}"><b>{{ $sheet->client->name }}</b></a><i>›</i><a
                href="/sheets/{{ $sheet->id }}">sheet</a><i>›</i>link</x-where></x-slot:where>
    <section class="sheet hand-over is-narrow" aria-labelledby="made">
        <h1 id="made">A link to the sheet <small>shown this once</small></h1>
        <p>It opens the sheet without signing in, as often as wanted, for
            {{ Count::choose($days, 'a day', "$days days") }}.
            Whoever has it can read the sheet; when it was opened stands with the sheet, where it is withdrawn, too.</p>
        <p><code id="link" class="strong">{{ $link }}</code></p>
        <div class="row-acts"><button type="button" class="act is-main" data-copy="@exactly($link)">Copy the
                link</button></div>
        <p class="apart"><a href="/sheets/{{ $sheet->id }}">Back to the sheet</a></p>
    </section>
</x-page>
