<x-page title="A link for {{ $person->name }}" place="People">
    <section class="sheet hand-over is-narrow" aria-labelledby="head">
        <h1 id="head">A link for {{ $person->name }} <small>shown this once</small></h1>
        <p>By it they choose their password, a single time, within {{ $hours }} hours. Pass it on so that nobody else
            reads it.</p>
        <p><code id="link" class="strong">{{ $link }}</code></p>
        <div class="row-acts"><button type="button" class="act is-main" data-copy="@exactly($link)">Copy the
                link</button> <a class="act" href="/people">Back to people</a></div>
    </section>
</x-page>
