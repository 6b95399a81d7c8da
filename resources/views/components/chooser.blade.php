@props(['what', 'label', 'query' => []])
{{-- A search that leads on with what was chosen; among thousands a list of options is none. --}}
<div class="chooser">
    <input class="entry" id="choose-{{ $what }}" type="search" name="q" autocomplete="off"
        placeholder="{{ $label }}" aria-label="{{ $label }}"
        hx-get="/choose/{{ $what }}?{{ http_build_query($query) }}" hx-trigger="load, input changed delay:150ms"
        hx-target="next .chosen-from" hx-sync="this:replace">
    <div class="chosen-from" aria-live="polite"></div>
</div>
