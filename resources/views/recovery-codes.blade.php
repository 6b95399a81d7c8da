<x-page title="Recovery codes">
    <section class="sheet is-narrow" aria-labelledby="head">
        <h1 id="head">Recovery codes <small>shown this once</small></h1>
        <p>Your second factor is on. If the app is lost, each of these signs you in once in its place. Note them down
            where your phone is not: on paper, or in a password safe.</p>
        <ul class="codes">
            @foreach ($codes as $code)
                <li><code>{{ implode('-', str_split($code->reveal(), 5)) }}</code></li>
            @endforeach
        </ul>
        <div class="row-acts">
            <button type="button" class="act is-main"
                data-copy="@exactly(implode("\n", array_map(fn ($code) => $code->reveal(), $codes)))">Copy them
                all</button>
            <a class="act" href="/me">I have noted them down</a>
        </div>
    </section>
</x-page>
