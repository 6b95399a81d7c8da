@use('App\Models\Closing')
@use('App\Text\Amount')
<x-page title="New deployment" place="Deployments">
    @if ($site !== null)
        <x-slot:where><x-site-where :site="$site" here="new deployment" /></x-slot:where>
    @endif
    <div class="two">
        <section class="sheet">
            <h1>New deployment <small>the next step only looks and makes a plan</small></h1>
            <form method="post" action="/deployments" class="pairs-form" data-busy>
                @csrf
                @foreach ($errors->all() as $message)
                    <p class="word is-trouble" role="alert">{{ $message }}</p>
                @endforeach
                <label for="choose-sites">Site</label>
                @if ($site === null)
                    <div>
                        @if ($fits !== [] || $suiting !== [])
                            <ul class="fits">
                                @foreach ($suiting as $suits)
                                    <li><a class="strong"
                                            href="/deployments/new?{{ http_build_query(['package' => $package->id,
                                                'site' => $suits->site->id]) }}"><x-domain
                                                :name="$suits->site->domain" /></a>
                                        <span class="soft">{{ $suits->site->account->client->name }}:
                                            {{ $suits->why }}</span></li>
                                @endforeach
                                @foreach ($fits as $fit)
                                    <li><a class="strong"
                                            href="/deployments/new?{{ http_build_query(['package' => $package->id,
                                                'site' => $fit->site->id]) }}"><x-domain
                                                :name="$fit->site->domain" /></a>
                                        <span class="soft">{{ $fit->site->account->client->name }}:
                                            {{ $fit->fit->inWords() }}</span></li>
                                @endforeach
                            </ul>
                        @endif
                        <x-chooser what="sites" label="Client or domain"
                            :query="array_filter(['package' => $package?->id])" />
                    </div>
                @else
                    <p class="side">
                        <input type="hidden" name="site" value="@exactly($site->id)">
                        <span><b><x-domain :name="$site->domain" /></b> <span
                                class="soft">{{ $site->account->client->name }}</span></span>
                        <a class="act is-quiet"
                            href="/deployments/new?{{ http_build_query(array_filter(['package' => $package?->id]))
                                }}">Choose
                            another</a>
                    </p>
                @endif
                <label for="choose-packages">Package</label>
                @if ($package === null)
                    <div>
                        @if ($fitting !== null)
                            <p class="soft">{{ $fitting->live === null ? 'Nothing deployed from here is live there.'
                                : $fitting->live->title().' is live there.' }}</p>
                            <ul class="fits">
                                @foreach ($fitting->packages as $fit)
                                    <li><a class="strong"
                                            href="/deployments/new?{{ http_build_query(['site' => $site->id,
                                                'package' => $fit->package->id]) }}">{{ $fit->package->title() }}</a>
                                        <span class="soft">{{ $fit->why }}</span></li>
                                @endforeach
                            </ul>
                        @endif
                        <x-chooser what="packages" label="Name or version"
                            :query="array_filter(['site' => $site?->id])" />
                    </div>
                @else
                    <p class="side">
                        <input type="hidden" name="package" value="@exactly($package->id)">
                        <span><b>{{ $package->title() }}</b> <span class="soft">{{ Amount::files($package->files) }},
                                {{ $package->created_at->shown('j M') }}</span></span>
                        <a class="act is-quiet"
                            href="/deployments/new?{{ http_build_query(array_filter(['site' => $site?->id])) }}">Choose
                            another</a>
                    </p>
                @endif
                @if ($places !== [])
                    <label for="place">Into</label>
                    <select class="entry" id="place" name="place">
                        <option value="">where its kind goes, in {{ $site->document_root }}</option>
                        @foreach ($places as $choice)
                            <option value="@exactly($choice->directory)" @selected(old('place') === $choice->directory)
                            >{{ $choice->name }}, {{ $choice->directory }}</option>
                        @endforeach
                    </select>
                @endif
                <label for="user">Sign in as</label>
                <select class="entry" id="user" name="user">
                    @foreach ($users as $user)
                        <option value="@exactly($user->id)">{{ $user->login }}, closes
                            {{ $user->ends === Closing::WithJob ? 'when this is done' : $user->endsWords() }}</option>
                    @endforeach
                    <option value="">the account itself{{ $site ? ', '.$site->account->login : '' }}</option>
                </select>
                @if ($better !== null)
                    <div class="whole-row">@include('parts.wrong-site')</div>
                    <label for="reason">Go on all the same, because</label>
                    <input class="entry" id="reason" name="reason" maxlength="500" required
                        value="@exactly(old('reason', ''))">
                @endif
                <div class="row-acts"><button class="act is-main" data-once
                    @disabled($package === null || $site === null)>Make the
                        plan</button></div>
            </form>
        </section>
        @include('parts.upload')
    </div>
</x-page>
