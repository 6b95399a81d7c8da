@use('App\View\Amount')
<x-page title="New deployment" place="Deployments">
    @if ($site !== null)
    <x-slot:where><x-where :client="$site->account->client"><b>{{ $site->account->client->name }}</b><i>›</i><b>{{ $site->domain }}</b><i>›</i><code>{{ $site->document_root }}</code></x-where></x-slot:where>
    @endif
    <div class="two">
        <section class="sheet">
            <h1>New deployment <small>the next step only looks and makes a plan</small></h1>
            <form method="post" action="/deployments" class="pairs-form" data-busy>
                @csrf
                @foreach ($errors->all() as $message)<p class="word is-trouble" role="alert">{{ $message }}</p>@endforeach
                <label for="site">Site</label>
                <select class="entry" id="site" name="site" data-goto="/deployments/new?package={{ $package?->id }}&amp;site=">@if ($site === null)<option value="">choose</option>@endif @foreach ($sites as $one)<option value="@exactly($one->id)" @selected($one->is($site))>{{ $one->domain }} — {{ $one->account->client->name }}</option>@endforeach</select>
                <label for="pack">Package</label>
                <select class="entry" id="pack" name="package">@foreach ($packages as $one)<option value="@exactly($one->id)" @selected($one->is($package))>{{ $one->title() }} — {{ Amount::files($one->files) }}, {{ $one->created_at->format('j M') }}</option>@endforeach</select>
                @php($places = $site === null ? collect() : $site->destinations->filter(fn ($destination) => $site->root()->toward($destination->path()) !== null))
                @if ($places->isNotEmpty())
                <label for="place">Into</label>
                <select class="entry" id="place" name="place"><option value="">the document root, {{ $site->document_root }}</option>@foreach ($places as $destination)<option value="@exactly($destination->directory)">{{ $destination->name }}, {{ $destination->directory }}</option>@endforeach</select>
                @endif
                <label for="user">Sign in as</label>
                <select class="entry" id="user" name="user">@foreach ($users as $user)<option value="@exactly($user->id)">{{ $user->login }}, closes {{ $user->ends === 'job' ? 'when this is done' : $user->endsWords() }}</option>@endforeach<option value="">the account itself{{ $site ? ', '.$site->account->login : '' }}</option></select>
                <div class="row-acts"><button class="act is-main" data-once @disabled($packages->isEmpty())>Make the plan</button></div>
            </form>
        </section>
        @include('parts.bring')
    </div>
</x-page>
