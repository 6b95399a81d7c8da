@use('Cellarium\Core\Words\Count')
@use('App\Models\PendingAction')
@use('App\Models\Closing')
@use('App\Models\FtpUserState')
@use('App\FtpUsers\HandOvers')
@use('App\Models\FtpUser')
@use('App\Text\Amount')
@php($ended = $user->hasEnded())
@php($waits = $sheet !== null)
<div class="two" id="ftp-user"
    @if ($view->working) hx-get="/ftp-users/{{ $user->id }}/state" hx-trigger="every 1s" hx-swap="outerHTML" @endif>
    <div class="stack">
        <section class="sheet" aria-labelledby="user">
            <h1 id="user"><x-path :path="$user->login" /> <x-tag :tone="$view->tone">{{ $view->word }}</x-tag></h1>
            @if ($user->trouble !== null && ! $view->working)
                <p class="word is-trouble" role="alert">{{ rtrim($user->trouble, '.') }}.</p>
            @endif
            @if ($user->found_at !== null && $user->secret === null && ! $ended && ! $view->working)
                <p class="word is-kept">The host has had this user since before
                    {{ $user->found_at->shown('j M Y H:i') }}; it was not made here, and nobody here knows its
                    password. Renew the password to be able to prove it, or close it.</p>
            @endif
            @if ($view->working)
                <p class="word is-kept" role="status">Signing in as {{ $user->shortLogin() }} to see what is true …</p>
            @endif
            <dl class="pairs">
                <dt>Lands in</dt>
                <dd><x-path :path="$user->directory" />
                    @if ($seen = $account->addressOf($user->path()))
                        <x-address :address="$seen" />
                    @endif
                </dd>
                <dt>Reaches</dt>
                <dd>@words($user->reach()->sentence())@if (count($user->reach()->clients()) > 1)
                        <x-tag tone="now">{{ count($user->reach()->clients()) }} clients</x-tag>
                    @elseif ($user->reach()->isTooWide())
                        <x-tag tone="now">too wide</x-tag>
                    @endif
                </dd>
                <dt>May</dt>
                <dd>{{ $user->read_only ? 'read only' : 'read and write' }},
                    {{ $user->space_limit === null ? 'no space limit of its own'
                        : 'up to '.Amount::bytes($user->space_limit) }}
                </dd>
                <dt>Closes</dt>
                <dd>
                    @if ($user->isOverdue())
                        <span class="bad">should have closed {{ $user->endsWords() }}
                            ({{ Amount::ago($user->closes_at) }})</span>
                    @elseif ($ended)
                        {{ $user->state === FtpUserState::Removed ? 'removed' : 'closed' }}
                        {{ $user->closed_at?->shown('j M Y H:i') }}, sign-in refused @else{{ $user->endsWords() }}
                        @if ($user->closes_at !== null)
                            <span class="soft">({{ Amount::ago($user->closes_at) }})</span>
                        @endif
                    @endif
                </dd>
                @unless ($ended)<dt>Used</dt>
                    <dd>{{ $view->used($user) }}
                        @if ($user->idleDays() >= config('cellarium.idle_days'))
                            <x-tag tone="soon">idle {{ $user->idleDays() }} days</x-tag>
                        @endif
                    </dd>
                @endunless
                <dt>Handed over</dt>
                <dd>{{ $user->handed_over_at === null ? 'not yet' : $user->handed_over_at->shown('j M Y H:i') }}
                    @if ($user->secret === null && ! $ended && $user->handed_over_at !== null)
                        <span class="soft">its password was forgotten here</span>
                    @elseif ($user->handed_over_at !== null && ! $ended)
                        <span class="soft">its password is kept encrypted to go on proving it, and shown
                            nowhere</span>
                    @endif
                    @foreach ($user->handOvers->sortByDesc('id') as $link)
                        <br>Link: {{ $link->words() }}@if ($link->waits())
                            <form method="post" action="/hand-overs/{{ $link->id }}/withdraw" class="act-form">
                                @csrf<button class="link" data-once>withdraw</button></form>
                            @endif @if ($link->opened_with)
                                <span class="soft" title="{{ $link->opened_with }}">with
                                    {{ \Illuminate\Support\Str::limit($link->opened_with, 40) }}</span>
                            @endif
                        @endforeach
                </dd>
            </dl>
            @if (! $ended && ! $view->working)
                <div class="row-acts">
                    @if (
                        ($user->state === FtpUserState::Open || $user->found_at !== null) &&
                            $user->state !== FtpUserState::ClosingFailed &&
                            ! $waits &&
                            $user->action() === null)
                        <x-action to="/ftp-users/{{ $user->id }}/renew">Renew the password</x-action>
                    @endif
                    @unless ($waits || $user->state === FtpUserState::ClosingFailed)
                        <x-action to="/ftp-users/{{ $user->id }}/prove">Prove again</x-action>
                    @endunless
                    @if (($user->action() !== PendingAction::Close || $user->state === FtpUserState::ClosingFailed)
                        && $user->state !== FtpUserState::Asked)
                        <x-action to="/ftp-users/{{ $user->id }}/close"
                            :main="$user->isOverdue() ||
                                $user->proof_failed_at !== null ||
                                $user->state === FtpUserState::ClosingFailed">{{ $user->state ===
                                    FtpUserState::ClosingFailed
                                    ? 'Close it again' : 'Close' }}</x-action>
                    @endif
                    @if ($user->action() !== PendingAction::Remove && $user->state !== FtpUserState::Asked)
                        <x-action to="/ftp-users/{{ $user->id }}/remove">Remove</x-action>
                    @endif
                </div>
            @elseif ($user->state === FtpUserState::Closed && $user->action() === null)
                <form method="post" action="/ftp-users/{{ $user->id }}/reopen" class="apart pairs-form">@csrf
                    @include('parts.ends', [
                        'ends' => Closing::WithJob->value,
                        'closes' => $view->closes($user),
                        'reason' => '',
                    ]) <div
                        class="row-acts"><button class="act" data-once>Open
                            again</button> <button class="act is-quiet"
                            formaction="/ftp-users/{{ $user->id }}/remove" data-once>Remove</button></div>
                </form>
            @endif
        </section>
        @if ($waits)
            <section class="sheet hand-over" aria-labelledby="sheet">
                <h2 id="sheet">{{ $sheet->title }} <small>at {{ $account->company ?: 'the provider' }}, by
                        hand</small></h2>
                <ol class="to-do">
                    @foreach ($sheet->steps as $step)
                        <li>{{ $step }}</li>
                    @endforeach
                </ol>
                <dl class="pairs is-copy">
                    @foreach ($sheet->fields as $field => $text)
                        <dt>{{ $field }}</dt>
                        <dd><code>{{ $text }}</code> <button type="button" class="link"
                                data-copy="@exactly($text)" aria-label="copy {{ $field }}">copy</button></dd>
                    @endforeach
                    @if ($sheet->password !== null)
                        <dt>Password</dt>
                        @if ($showsSecrets)
                            <dd><code id="sheet-password">{{ $sheet->password->reveal() }}</code> <button type="button"
                                    class="link" data-copy="@exactly($sheet->password->reveal())"
                                    aria-label="copy Password">copy</button>
                            </dd>
                        @else
                            <dd>
                                @leads("/ftp-users/$user->id/hand-over", 'POST')
                                    <a href="/ftp-users/{{ $user->id }}/sheet">Show it</a> <span class="soft">once you
                                        have shown that it is you</span>
                                @else
                                    <span class="soft">a maintainer sees it here, and does this at the provider</span>
                                @endleads
                            </dd>
                        @endif
                    @endif
                </dl>
                <div class="row-acts">
                    <form method="post" action="/ftp-users/{{ $user->id }}/prove" class="act-form">@csrf<button
                            class="act is-main" data-once>It is done: prove it</button></form>
                    <form method="post" action="/ftp-users/{{ $user->id }}/give-up" class="act-form">@csrf<button
                            class="act is-quiet" data-once>Give it up</button></form>
                </div>
            </section>
        @endif
        @if ($user->canBeHandedOver() && ! $view->working)
            @leads("/ftp-users/$user->id/hand-over", 'POST')
            <section class="sheet" aria-labelledby="hand-over">
                <h2 id="hand-over">Hand over the settings <small>once</small></h2>
                <p>Host, port, protocol, login, password, directory and public address.
                    {{ $user->forgets ? 'The password is then forgotten here.'
                        : 'Afterwards nobody can see the password here any more.' }}
                </p>
                <div class="row-acts">
                    <form method="post" action="/ftp-users/{{ $user->id }}/hand-over" class="act-form">
                        @csrf<button class="act is-main" name="how" value="show" data-once>Show them here</button>
                    </form>
                    <form method="post" action="/ftp-users/{{ $user->id }}/hand-over" class="act-form is-inline">
                        @csrf<input type="hidden" name="how" value="link"><button class="act" data-once>Make a
                            link that works once</button> <label>within <select class="entry is-short" name="hours">
                                @foreach (HandOvers::HOURS as $hours)
                                    <option value="@exactly($hours)" @selected($hours === 24)>
                                        {{ Count::words($hours, 'hour') }}</option>
                                @endforeach
                            </select>
                        </label></form>
                </div>
            </section>
            @else
            <section class="sheet" aria-labelledby="hand-over">
                <h2 id="hand-over">Hand over the settings</h2>
                <p class="calm">A maintainer shows them, or makes a link that works once.</p>
            </section>
            @endleads
        @endif
        @if (! $ended && ! $waits && ! $view->working && $user->action() === null
            && $user->state !== FtpUserState::Asked)
            <section class="sheet" aria-labelledby="change">
                <h2 id="change">Change it</h2>
                <form method="post" action="/ftp-users/{{ $user->id }}/change" class="pairs-form">@csrf
                    <x-field for="directory" label="Directory">
                        <input class="entry is-mono" id="directory" name="directory"
                        value="@exactly($user->directory)" required
                            maxlength="900" spellcheck="false" hx-get="/accounts/{{ $account->id }}/foresight"
                            hx-trigger="input delay:200ms" hx-target="#foresight" hx-include="#megabytes">
                        <div class="picks">
                            @foreach ($account->sites->flatMap->destinations as $destination)
                                <button type="button" class="pick" data-pick="@exactly($destination->directory)"
                                    data-into="directory">{{ $destination->name }}</button>
                            @endforeach
                        </div>
                        <div id="foresight" aria-live="polite"></div>
                    </x-field>
                    <label for="megabytes">Space, MB</label><input class="entry is-short" id="megabytes"
                        name="megabytes" inputmode="numeric"
                        value="@exactly($user->space_limit === null ? '' : intdiv($user->space_limit, 1_000_000))"
                        placeholder="no limit">
                    <div class="row-acts"><button class="act" data-once>Change and prove</button></div>
                </form>
                <form method="post" action="/ftp-users/{{ $user->id }}/closing" class="apart pairs-form">@csrf
                    @include('parts.ends', [
                        'ends' => $user->ends->value,
                        'closes' => $view->closes($user),
                        'reason' => $user->ends_reason,
                    ]) <div class="row-acts"><button class="act" data-once>Set when it
                            closes</button></div>
                </form>
            </section>
        @endif
    </div>
    <section class="sheet" aria-labelledby="proof">
        <h2 id="proof">Proof
            <small>{{ $view->shows() }}</small>
        </h2>
        @if ($view->steps->isEmpty())
            <p class="calm">
                {{ $waits ? 'It is proven when you say that it is done.' : 'Nobody has signed in as this user yet.' }}
            </p>
        @endif
        <ol class="steps">
            @foreach ($view->steps as $step)
                <li class="{{ $step->ok ? 'is-ok'
                    : 'is-broken' }}"><span>@words($step->sentence)@if ($step->answer !== null)
                            <code class="answer">@words($step->answer)</code>
                            @endif @if (! $step->ok && $step->next)
                                <em>{{ $step->next }}</em>
                            @endif
                    </span>
                    <time>{{ $step->made_at->isToday() ? $step->made_at->shown('H:i:s')
                        : $step->made_at->shown('j M H:i') }}</time>
                </li>
            @endforeach
        </ol>
        @if ($user->reach_proven_at !== null && ! $ended)
            <p class="soft">Last held {{ Amount::ago($user->reach_proven_at) }};
                {{ $user->secret === null ? 'the host is asked about it' : 'proven again by itself' }} every
                {{ config('cellarium.sweep_hours') }} hours.</p>
        @endif
    </section>
</div>
