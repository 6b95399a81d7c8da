@use('App\Text\Amount')
@php($again = $place->url(null, $table->order->query() + ['chosen' => $chosen?->row->entry->name]))
<section class="sheet files" id="files" aria-label="Files in {{ $place->at }}" data-files
    @if ($going !== null) hx-get="{{ $again }}&errand={{ $going->id }}" hx-trigger="every 1s"
    @elseif ($isOld) hx-get="{{ $again }}&look=1" hx-trigger="load" @endif
    hx-swap="outerHTML">
    <div class="files-tools">
        <form method="get" action="{{ $place->url() }}" class="files-filter" role="search">
            <label class="is-sr-only" for="filter">Name in this folder</label>
            <input class="entry" id="filter" name="name" type="search" value="@exactly($table->order->words)"
                placeholder="Name in this folder, * for anything" autocomplete="off">
            <input type="hidden" name="hidden" value="{{ (int) $table->order->hidden }}">
        </form>
        <a class="act is-quiet"
            href="{{ $place->url(null, $table->order->withHidden(! $table->order->hidden)) }}"
            data-act="hidden">{{ $table->order->hidden ? 'Leave hidden out' : 'Show hidden' }}</a>
        <span class="soft files-age">
            @if ($going !== null)
                being looked at
            @elseif ($table->listing?->looked_at !== null)
                looked at {{ Amount::ago($table->listing->looked_at) }}
            @endif
            <a href="{{ $again }}&amp;look=1" data-act="look">look again</a></span>
    </div>
    @if ($table->listing?->trouble !== null)
        <p class="word is-trouble" role="alert">This folder could not be read just now. @words($table->listing->trouble)
            @if ($table->known) What is shown was seen {{ Amount::ago($table->listing->looked_at) }}. @endif</p>
    @endif
    @if (! $table->known)
        <p class="calm">{{ $going === null && $table->listing?->trouble !== null ? 'Not seen yet.'
            : 'Not looked at yet. The server is being asked.' }}</p>
    @elseif ($table->count === 0)
        <p class="calm">
            @if ($table->isWhole())
                This folder is empty: the server listed it, and nothing is in it.
            @elseif ($table->order->words !== '')
                Nothing here is called “{{ $table->order->words }}”.
            @else
                There are only hidden files in it.
            @endif
        </p>
    @else
        <form method="post" action="{{ $place->owner() }}/file-changes" id="with-files">
            @csrf
            <input type="hidden" name="at" value="@exactly($place->at)">
            <x-table caption="Files" kind="files-table" @class(['is-only-seen' => ! $place->mayBeChanged()]) data-rows>
                <thead>
                    <tr>
                        <th scope="col" class="tick">
                            <input type="checkbox" data-all aria-label="choose all that is shown"></th>
                        @foreach (['name' => 'Name', 'size' => 'Size', 'changed' => 'Changed',
                            'rights' => 'Permissions', 'from' => 'Comes from'] as $column => $title)
                            <th scope="col" class="is-{{ $column }}" aria-sort="{{ $table->order->sorts($column) }}">
                                <a href="{{ $place->url(null, $table->order->by($column)) }}">{{ $title }}<span
                                        aria-hidden="true">{{ $table->order->arrow($column) }}</span></a>
                            </th>
                        @endforeach
                        <th scope="col" class="is-visitors">Visitors</th>
                    </tr>
                </thead>
                <tbody>@include('parts.files-rows')</tbody>
            </x-table>
            @include('parts.files-with')
        </form>
    @endif
</section>
