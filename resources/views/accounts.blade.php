@use('App\Accounts\AccountTable')
<x-page title="Accounts" place="Accounts">
    <section class="sheet">
        <header class="head">
            <h1>Accounts <small id="fit">@include('parts.account-fit')</small></h1>
            <div class="row-acts">
                <x-action to="/ftp-users" method="GET">Open FTP users</x-action>
                <x-action to="/reach" method="GET">Who reaches what</x-action>
                <x-action to="/accounts/new" method="GET" main>Add an account</x-action>
                <x-action to="/accounts/import" method="GET">Import a list</x-action>
                <x-action to="/accounts/export" method="GET">Export</x-action>
                @if ($removed)
                    <x-action to="/removals" method="GET">Removed</x-action>
                @endif
            </div>
        </header>
        <form class="sieve" method="get" action="/accounts" hx-get="/accounts" hx-target="#accounts"
            hx-select="#accounts" hx-select-oob="#fit,#keep-view" hx-swap="outerHTML" hx-trigger="input delay:200ms"
            hx-push-url="true" hx-sync="this:replace">
            <label class="is-sr-only" for="q">Client, domain, host, login or note</label><input
                class="entry is-wide" id="q" name="q" type="search" value="@exactly($table->get('q'))"
                placeholder="Client, domain, host, login, note" autocomplete="off">
            @if ($groups->isNotEmpty())<label class="is-sr-only"
                    for="group">Group</label><select class="entry" id="group" name="group">
                    <option value="">all groups</option>
                    @foreach ($groups as $group)
                        <option @selected($group === $table->get('group'))>{{ $group }}</option>
                    @endforeach
                </select>
            @endif
            @if ($tags !== [])<label class="is-sr-only"
                    for="tag">Tag</label><select class="entry" id="tag" name="tag">
                    <option value="">all tags</option>
                    @foreach ($tags as $tag)
                        <option @selected($tag === $table->get('tag'))>{{ $tag }}</option>
                    @endforeach
                </select>
            @endif
            <label class="is-sr-only" for="only">Only</label><select class="entry" id="only" name="only">
                <option value="">in any state</option>
                @foreach (AccountTable::ONLY as $value => $words)
                    <option value="@exactly($value)" @selected($value === $table->get('only'))>{{ $words }}</option>
                @endforeach
            </select>
            <input type="hidden" name="sort" value="@exactly($table->get('sort'))"><input type="hidden" name="down"
                value="@exactly($table->get('down'))">
            <noscript><button class="act">Show</button></noscript>
        </form>
        <div class="views" role="group" aria-label="Saved views">
            @foreach ($views as $view)
                <span class="view"><a href="/accounts?{{ $view->query }}"
                        @if ($view->query === http_build_query($table->query)) aria-current="true"
                        @endif>{{ $view->name }}</a>
                    <form method="post" action="/views/{{ $view->id }}/remove" class="act-form">@csrf<button
                            class="link" aria-label="remove the view {{ $view->name }}">remove</button></form>
                </span>
            @endforeach
            <form id="keep-view" method="post" action="/views" class="act-form keep-view"
                @if ($table->query === []) hidden @endif>@csrf<input type="hidden" name="query"
                    value="@exactly(http_build_query($table->query))"><label class="is-sr-only" for="view-name">Name of
                    the view</label><input
                    class="entry" id="view-name" name="name" placeholder="name of this view" maxlength="60"
                    required><button class="act is-quiet">Save this view</button></form>
        </div>
        @include('parts.account-rows')
    </section>
</x-page>
